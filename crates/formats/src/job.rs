//! The open format `bofta-job`, version 1. Numbers are in the job's `units`.

use crate::FormatError;
use bofta_core::FieldProblem;
use bofta_core::cloth::{Cloth, Form, Money, Price, Print, PrintUp, Repeat, Shrink};
use bofta_core::lay::{Aim, Cuts, Job, JobPiece, Pin, Placement, Rules};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::name;
use bofta_core::piece::{Grain, Mirror, PrintRule};
use bofta_core::shape::{Outline, Point, Turn};
use serde::{Deserialize, Serialize};

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct JobFile {
    format: String,
    version: u32,
    units: System,
    #[serde(default)]
    name: String,
    pieces: Vec<PieceFile>,
    cloths: Vec<ClothFile>,
    #[serde(default)]
    rules: RulesFile,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pinned: Vec<PinFile>,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct PinFile {
    cloth: String,
    #[serde(default = "first")]
    cloth_copy: u32,
    piece: String,
    copy: u32,
    x: f64,
    y: f64,
    #[serde(default)]
    turn: u16,
    #[serde(default)]
    mirrored: bool,
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    on_fold: bool,
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    single: bool,
}

const fn first() -> u32 {
    1
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct PieceFile {
    id: String,
    name: Option<String>,
    count: u32,
    outline: OutlineFile,
    #[serde(default)]
    grain: Grain,
    #[serde(default)]
    print: PrintRule,
    #[serde(default)]
    mirror: Mirror,
    cloths: Vec<String>,
    /// None of its cloths is preferred.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    any_cloth: bool,
    /// Where the middle of a motif falls on it, from its lower left corner.
    #[serde(skip_serializing_if = "Option::is_none")]
    on_print: Option<[f64; 2]>,
}

#[derive(Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
enum OutlineFile {
    Rect([f64; 2]),
    Circle(f64),
    Polygon(Vec<[f64; 2]>),
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct FlawFile {
    /// Centre and radius.
    circle: Option<[f64; 3]>,
    polygon: Option<Vec<[f64; 2]>>,
}

#[derive(Clone, Copy, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
enum KindFile {
    Roll,
    Sheet,
    Scrap,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct PriceFile {
    amount: f64,
    per: f64,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct ShrinkFile {
    #[serde(default)]
    along: f64,
    #[serde(default)]
    across: f64,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct ClothFile {
    id: String,
    name: Option<String>,
    kind: KindFile,
    #[serde(skip_serializing_if = "Option::is_none")]
    width: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    length: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    max: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    rect: Option<[f64; 2]>,
    #[serde(skip_serializing_if = "Option::is_none")]
    count: Option<u32>,
    #[serde(skip_serializing_if = "Option::is_none")]
    polygon: Option<Vec<[f64; 2]>>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    flaws: Vec<FlawFile>,
    #[serde(default)]
    selvedge: f64,
    #[serde(default)]
    trim: f64,
    #[serde(skip_serializing_if = "Option::is_none")]
    step: Option<f64>,
    #[serde(default)]
    min: f64,
    #[serde(default)]
    print: Print,
    #[serde(default)]
    up: PrintUp,
    #[serde(default)]
    nap: bool,
    #[serde(skip_serializing_if = "Option::is_none")]
    price: Option<PriceFile>,
    #[serde(skip_serializing_if = "Option::is_none")]
    shrink: Option<ShrinkFile>,
    #[serde(default)]
    owned: bool,
    #[serde(default = "one")]
    layers: u8,
    #[serde(skip_serializing_if = "Option::is_none")]
    repeat: Option<RepeatFile>,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct RepeatFile {
    #[serde(skip_serializing_if = "Option::is_none")]
    across: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    along: Option<f64>,
    #[serde(default)]
    drop: f64,
    /// The middle of one motif, as the cloth is washed.
    at: [f64; 2],
}

const fn one() -> u8 {
    1
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields, default)]
struct RulesFile {
    gap: f64,
    cuts: Cuts,
    keep: Option<[f64; 2]>,
    aim: Aim,
    seed: u64,
    #[serde(skip_serializing_if = "is_usual")]
    planners: u32,
    seconds: f64,
}

fn is_usual(planners: &u32) -> bool {
    *planners == Rules::default().planners
}

impl Default for RulesFile {
    fn default() -> Self {
        Self {
            gap: 0.0,
            cuts: Cuts::Free,
            keep: None,
            aim: Aim::BuyLeast,
            seed: 1,
            planners: Rules::default().planners,
            seconds: 5.0,
        }
    }
}

/// Reads a job and checks it.
///
/// # Errors
/// One line that names the field and what it should be.
pub fn read_job(text: &str) -> Result<Job, FormatError> {
    let file: JobFile = FormatError::read(text)?;
    if file.format != "bofta-job" {
        return Err(
            FieldProblem::new("format", &file.format, format!("“{}”: should be “bofta-job”", file.format)).into()
        );
    }
    if file.version != 1 {
        return Err(FieldProblem::new(
            "version",
            file.version,
            format!("{}: this program reads version 1", file.version),
        )
        .into());
    }
    let units = Units(file.units);
    let mut cloths = Vec::with_capacity(file.cloths.len());
    for (i, cloth) in file.cloths.into_iter().enumerate() {
        cloths.push(units.cloth(cloth).map_err(|p| p.within(&format!("cloths[{i}]")))?);
    }
    let mut pieces = Vec::with_capacity(file.pieces.len());
    for (i, piece) in file.pieces.into_iter().enumerate() {
        pieces.push(units.piece(piece).map_err(|p| p.within(&format!("pieces[{i}]")))?);
    }
    let pinned = file
        .pinned
        .into_iter()
        .enumerate()
        .map(|(i, pin)| units.pin(pin).map_err(|p| p.within(&format!("pinned[{i}]"))))
        .collect::<Result<Vec<_>, _>>()?;
    let rules = file.rules;
    if !(0.0..=86_400.0).contains(&rules.seconds) {
        return Err(FieldProblem::new(
            "rules.seconds",
            shown(rules.seconds),
            format!("{}: is from 0 to 86400", shown(rules.seconds)),
        )
        .into());
    }
    let keep = match rules.keep {
        Some([w, h]) => (units.length("rules.keep", w)?, units.length("rules.keep", h)?),
        None => Rules::default().keep,
    };
    let rules = Rules {
        gap: units.length("rules.gap", rules.gap)?,
        cuts: rules.cuts,
        keep,
        aim: rules.aim,
        seed: rules.seed,
        planners: rules.planners,
        milliseconds: (rules.seconds * 1000.0) as u64,
    };
    let job = Job { name: file.name, units: file.units, pieces, cloths, rules, pinned };
    job.check()?;
    Ok(job)
}

/// Reads lengths of a file in the unit it is written in.
pub(crate) struct Units(pub System);

impl Units {
    /// The length `value` of `field`.
    pub(crate) fn length(&self, field: &str, value: f64) -> Result<Length, FieldProblem> {
        // Past a kilometre the exact count would leave the range in which areas are safe.
        if !value.is_finite() || value.abs() > 1e5 {
            let message = format!("{}: is not a size of cloth; at most 100000 is read", shown(value));
            return Err(FieldProblem::new(field, shown(value), message));
        }
        Ok(Length::from_units(value, self.0))
    }

    fn point(&self, field: &str, [x, y]: [f64; 2]) -> Result<Point, FieldProblem> {
        Ok(Point::new(self.length(field, x)?, self.length(field, y)?))
    }

    fn polygon(&self, field: &str, corners: &[[f64; 2]]) -> Result<Outline, FieldProblem> {
        let corners = corners.iter().map(|c| self.point(field, *c)).collect::<Result<Vec<_>, _>>()?;
        Outline::polygon(corners).map_err(|e| FieldProblem::new(field, "", e.to_string()))
    }

    fn piece(&self, file: PieceFile) -> Result<JobPiece, FieldProblem> {
        let wrong = |value: String, e: bofta_core::shape::OutlineError| {
            FieldProblem::new("outline", &value, format!("{value}: {e}"))
        };
        let outline = match file.outline {
            OutlineFile::Rect([w, h]) => Outline::rect(self.length("outline", w)?, self.length("outline", h)?)
                .map_err(|e| wrong(format!("{w} × {h}"), e))?,
            OutlineFile::Circle(d) => {
                Outline::circle(self.length("outline", d)?).map_err(|e| wrong(d.to_string(), e))?
            }
            OutlineFile::Polygon(corners) => self.polygon("outline.polygon", &corners)?,
        };
        Ok(JobPiece {
            name: file.name.map_or_else(|| name::clean(&file.id), |n| name::clean(&n)),
            id: file.id,
            count: file.count,
            outline,
            grain: file.grain,
            print: file.print,
            mirror: file.mirror,
            cloths: file.cloths,
            any_cloth: file.any_cloth,
            on_print: file.on_print.map(|at| self.point("on_print", at)).transpose()?,
        })
    }

    fn pin(&self, file: PinFile) -> Result<Pin, FieldProblem> {
        let turn = Turn::new(file.turn).ok_or_else(|| {
            FieldProblem::new("turn", file.turn, format!("{}: is a multiple of 45 below 360", file.turn))
        })?;
        let placement = Placement {
            piece: file.piece,
            copy: file.copy,
            x: self.length("x", file.x)?,
            y: self.length("y", file.y)?,
            turn,
            mirrored: file.mirrored,
            on_fold: file.on_fold,
            single: file.single,
        };
        Ok(Pin { cloth: file.cloth, cloth_copy: file.cloth_copy, placement })
    }

    fn cloth(&self, file: ClothFile) -> Result<Cloth, FieldProblem> {
        let missing = |field: &str, kind: &str| FieldProblem::new(field, "", format!("a {kind} needs its {field}"));
        let form = match file.kind {
            KindFile::Roll => {
                let width = self.length("width", file.width.ok_or_else(|| missing("width", "roll"))?)?;
                if file.owned && file.length.is_none() {
                    return Err(FieldProblem::new("length", "", "a roll that is owned needs its length"));
                }
                if !file.owned && file.length.is_some() {
                    return Err(FieldProblem::new(
                        "length",
                        "",
                        "only a roll that is owned has a length; a roll to buy has a max",
                    ));
                }
                Form::Roll {
                    width,
                    length: file.length.map(|l| self.length("length", l)).transpose()?,
                    max: file.max.map(|l| self.length("max", l)).transpose()?,
                }
            }
            KindFile::Sheet => {
                let [w, h] = file.rect.ok_or_else(|| missing("rect", "sheet"))?;
                let (width, height) = (self.length("rect", w)?, self.length("rect", h)?);
                Form::Sheet { width, height, count: file.count.unwrap_or(1) }
            }
            KindFile::Scrap => {
                let outline = self.polygon("polygon", &file.polygon.ok_or_else(|| missing("polygon", "scrap"))?)?;
                let flaws = file.flaws.iter().map(|f| self.flaw(f)).collect::<Result<Vec<_>, _>>()?;
                Form::Scrap { outline, flaws }
            }
        };
        let shrink = match file.shrink {
            Some(s) => Shrink { along: ppm("shrink.along", s.along)?, across: ppm("shrink.across", s.across)? },
            None => Shrink::NONE,
        };
        let price = file.price.map(|p| self.price(&p)).transpose()?;
        Ok(Cloth {
            name: file.name.map_or_else(|| name::clean(&file.id), |n| name::clean(&n)),
            id: file.id,
            form,
            selvedge: self.length("selvedge", file.selvedge)?,
            trim: self.length("trim", file.trim)?,
            shrink,
            shop: ShopStep {
                step: file.step.map(|s| self.length("step", s)).transpose()?,
                min: self.length("min", file.min)?,
            },
            price,
            owned: file.owned,
            print: file.print,
            up: file.up,
            nap: file.nap,
            layers: file.layers,
            repeat: file.repeat.map(|r| self.repeat(&r).map_err(|p| p.within("repeat"))).transpose()?,
        })
    }

    fn repeat(&self, file: &RepeatFile) -> Result<Repeat, FieldProblem> {
        Ok(Repeat {
            across: file.across.map(|l| self.length("across", l)).transpose()?,
            along: file.along.map(|l| self.length("along", l)).transpose()?,
            drop: self.length("drop", file.drop)?,
            at: self.point("at", file.at)?,
        })
    }

    fn price(&self, file: &PriceFile) -> Result<Price, FieldProblem> {
        let per = self.length("price.per", file.per)?;
        if per <= Length::ZERO {
            return Err(FieldProblem::new(
                "price.per",
                shown(file.per),
                format!("{}: is more than 0", shown(file.per)),
            ));
        }
        if !(0.0..=1e7).contains(&file.amount) {
            let message = format!("{}: is from 0 to 10000000", shown(file.amount));
            return Err(FieldProblem::new("price.amount", shown(file.amount), message));
        }
        Ok(Price { amount: Money((file.amount * 100.0).round() as i64), per })
    }

    fn flaw(&self, file: &FlawFile) -> Result<Outline, FieldProblem> {
        match (&file.circle, &file.polygon) {
            (Some([x, y, r]), None) => {
                let (x, y, r) = (self.length("flaws", *x)?, self.length("flaws", *y)?, self.length("flaws", *r)?);
                let corners = Outline::circle(r * 2)
                    .map_err(|e| FieldProblem::new("flaws", "", e.to_string()))?
                    .corners()
                    .into_iter()
                    .map(|p| Point::new(p.x + x - r, p.y + y - r))
                    .collect();
                Outline::polygon(corners).map_err(|e| FieldProblem::new("flaws", "", e.to_string()))
            }
            (None, Some(corners)) => self.polygon("flaws", corners),
            _ => Err(FieldProblem::new("flaws", "", "a flaw is a circle [x, y, radius] or a polygon")),
        }
    }
}

/// A number as it stands in a file, without three hundred zeros.
pub(crate) fn shown(value: f64) -> String {
    if value.abs() < 1e9 { value.to_string() } else { format!("{value:e}") }
}

fn ppm(field: &str, share: f64) -> Result<u32, FieldProblem> {
    if (0.0..=0.5).contains(&share) {
        Ok((share * 1e6).round() as u32)
    } else {
        Err(FieldProblem::new(field, shown(share), format!("{}: a share from 0 to 0.5 is allowed", shown(share))))
    }
}

/// Writes a job; [`read_job`] gives it back exactly.
pub fn write_job(job: &Job) -> String {
    let to = |l: Length| l.in_units(job.units);
    let point = |p: &Point| [to(p.x), to(p.y)];
    let corners = |o: &Outline| o.corners().iter().map(point).collect::<Vec<_>>();
    let pieces = job
        .pieces
        .iter()
        .map(|p| PieceFile {
            id: p.id.clone(),
            name: Some(p.name.clone()),
            count: p.count,
            outline: match &p.outline {
                Outline::Rect(w, h) => OutlineFile::Rect([to(*w), to(*h)]),
                Outline::Circle(d) => OutlineFile::Circle(to(*d)),
                Outline::Polygon(_) => OutlineFile::Polygon(corners(&p.outline)),
            },
            grain: p.grain,
            print: p.print,
            mirror: p.mirror,
            cloths: p.cloths.clone(),
            any_cloth: p.any_cloth,
            on_print: p.on_print.map(|at| [to(at.x), to(at.y)]),
        })
        .collect();
    let cloths = job
        .cloths
        .iter()
        .map(|c| {
            let mut file = ClothFile {
                id: c.id.clone(),
                name: Some(c.name.clone()),
                kind: KindFile::Roll,
                width: None,
                length: None,
                max: None,
                rect: None,
                count: None,
                polygon: None,
                flaws: vec![],
                selvedge: to(c.selvedge),
                trim: to(c.trim),
                step: c.shop.step.map(to),
                min: to(c.shop.min),
                print: c.print,
                up: c.up,
                nap: c.nap,
                price: c.price.map(|p| PriceFile { amount: p.amount.0 as f64 / 100.0, per: to(p.per) }),
                shrink: (c.shrink != Shrink::NONE).then(|| ShrinkFile {
                    along: f64::from(c.shrink.along) / 1e6,
                    across: f64::from(c.shrink.across) / 1e6,
                }),
                owned: c.owned,
                layers: c.layers,
                repeat: c.repeat.map(|r| RepeatFile {
                    across: r.across.map(to),
                    along: r.along.map(to),
                    drop: to(r.drop),
                    at: [to(r.at.x), to(r.at.y)],
                }),
            };
            match &c.form {
                Form::Roll { width, length, max } => {
                    file.width = Some(to(*width));
                    file.length = length.map(to);
                    file.max = max.map(to);
                }
                Form::Sheet { width, height, count } => {
                    file.kind = KindFile::Sheet;
                    file.rect = Some([to(*width), to(*height)]);
                    file.count = Some(*count);
                }
                Form::Scrap { outline, flaws } => {
                    file.kind = KindFile::Scrap;
                    file.polygon = Some(corners(outline));
                    file.flaws = flaws.iter().map(|f| FlawFile { circle: None, polygon: Some(corners(f)) }).collect();
                }
            }
            file
        })
        .collect();
    let file = JobFile {
        format: "bofta-job".into(),
        version: 1,
        units: job.units,
        name: job.name.clone(),
        pieces,
        cloths,
        rules: RulesFile {
            gap: to(job.rules.gap),
            cuts: job.rules.cuts,
            keep: Some([to(job.rules.keep.0), to(job.rules.keep.1)]),
            aim: job.rules.aim,
            seed: job.rules.seed,
            planners: job.rules.planners,
            seconds: job.rules.milliseconds as f64 / 1000.0,
        },
        pinned: job
            .pinned
            .iter()
            .map(|Pin { cloth, cloth_copy, placement: p }| PinFile {
                cloth: cloth.clone(),
                cloth_copy: *cloth_copy,
                piece: p.piece.clone(),
                copy: p.copy,
                x: to(p.x),
                y: to(p.y),
                turn: p.turn.degrees(),
                mirrored: p.mirrored,
                on_fold: p.on_fold,
                single: p.single,
            })
            .collect(),
    };
    // A tree of plain numbers and strings always has a JSON form.
    serde_json::to_string_pretty(&file).unwrap_or_default()
}
