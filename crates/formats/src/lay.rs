//! The open format `bofta-lay`, version 1: what `bofta lay` writes and `bofta check` reads.

use crate::FormatError;
use crate::job::{Units, shown};
use bofta_core::FieldProblem;
use bofta_core::cloth::Money;
use bofta_core::cutting::{
    CutKind, Edge, Freed, LeftPart, LeftShape, Marking, StatedCut, Step, cut_list, left_shaped, left_whole,
};
use bofta_core::lay::{Bound, Certificate, ClothLay, Job, Lay, MOST_PIECES, Offcut, Placement, SheetsNeeded, Unplaced};
use bofta_core::measure::{Length, System};
use bofta_core::shape::{Point, Turn};
use serde::{Deserialize, Serialize};

/// The most corners of what is left of a cloth: the edges of many pieces meet in it.
const MOST_LEFT_CORNERS: usize = 50_000;

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct LayFile {
    format: String,
    version: u32,
    job: String,
    units: System,
    cloths: Vec<ClothFile>,
    unplaced: Vec<UnplacedFile>,
    cost: f64,
    bound: BoundFile,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    sheets: Vec<SheetsNeeded>,
    proven: bool,
    warnings: Vec<String>,
    iterations: u64,
    seconds: f64,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct ClothFile {
    id: String,
    copy: u32,
    needed_length: f64,
    buy_length: f64,
    used_share: f64,
    placements: Vec<PlacementFile>,
    offcuts: Vec<OffcutFile>,
    /// Together with `proof`; files written before there were certificates have neither.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    bound: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    proof: Option<Certificate>,
    cuts: Vec<CutFile>,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct PlacementFile {
    piece: String,
    copy: u32,
    x: f64,
    y: f64,
    turn: u16,
    mirrored: bool,
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    on_fold: bool,
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    single: bool,
}

#[derive(Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
enum OffcutFile {
    /// Left, low, width, height.
    Rect([f64; 4]),
    Polygon(Vec<[f64; 2]>),
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct CutFile {
    kind: String,
    /// The part it is made on: A is the whole cloth.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    part: Option<String>,
    line: [f64; 4],
    reading: f64,
    from: String,
    /// Where the edge lies that the reading is measured from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    edge: Option<f64>,
    /// How far beyond the cut the middle of a motif must lie: the print tells where it runs, not the reading.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    motif: Option<f64>,
    frees: Vec<String>,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct UnplacedFile {
    piece: String,
    count: u32,
    why: String,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct BoundFile {
    cost: f64,
    length: f64,
}

/// Writes a lay of `job` that took `seconds`, its cuts included.
pub fn write_lay(job: &Job, lay: &Lay, seconds: f64) -> String {
    let to = |l: Length| l.in_units(job.units);
    let cloths = lay
        .cloths
        .iter()
        .map(|c| ClothFile {
            id: c.cloth.clone(),
            copy: c.copy,
            needed_length: to(c.needed_length),
            buy_length: to(c.buy_length),
            used_share: (c.used_share * 1e6).round() / 1e6,
            placements: c
                .placements
                .iter()
                .map(|p| PlacementFile {
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
            offcuts: offcuts(job, c),
            bound: Some(to(c.bound)),
            proof: c.proof.clone(),
            cuts: cuts(job, c),
        })
        .collect();
    let money = |m: Money| m.0 as f64 / 100.0;
    let file = LayFile {
        format: "bofta-lay".into(),
        version: 1,
        job: lay.job.clone(),
        units: job.units,
        cloths,
        unplaced: lay
            .unplaced
            .iter()
            .map(|u| UnplacedFile { piece: u.piece.clone(), count: u.count, why: u.why.clone() })
            .collect(),
        cost: money(lay.cost),
        bound: BoundFile { cost: money(lay.bound.cost), length: to(lay.bound.length) },
        sheets: lay.sheets.clone(),
        proven: lay.proven,
        warnings: lay.warnings.clone(),
        iterations: lay.iterations,
        seconds: (seconds * 1000.0).round() / 1000.0,
    };
    serde_json::to_string_pretty(&file).unwrap_or_default()
}

/// What the cuts of the same file leave whole.
fn offcuts(job: &Job, lay: &ClothLay) -> Vec<OffcutFile> {
    let to = |l: Length| l.in_units(job.units);
    let rect = |left: LeftPart| {
        let [x, y, width, height] = [left.at.x, left.at.y, left.at.width, left.at.height].map(|l| to(Length(l)));
        OffcutFile::Rect([x, y, width, height])
    };
    let shape = |left: LeftShape| OffcutFile::Polygon(left.corners.iter().map(|p| [to(p.x), to(p.y)]).collect());
    // One with a hole in it is no outline.
    let shaped = left_shaped(job, lay).into_iter().filter(|left| left.scrap.flaws.is_empty()).map(shape);
    left_whole(job, lay).into_iter().map(rect).chain(shaped).collect()
}

fn freed(those: &[Freed]) -> Vec<String> {
    those.iter().map(|f| format!("{} {}", f.piece, f.copy)).collect()
}

fn cuts(job: &Job, lay: &ClothLay) -> Vec<CutFile> {
    let to = |l: Length| l.in_units(job.units);
    cut_list(job, std::slice::from_ref(lay), &[], &[])
        .into_iter()
        .filter_map(|step| match step {
            Step::Fuse { .. } | Step::Block { .. } | Step::Corners(_) => None,
            // Where several are drawn before the first is cut, the drawing parts nothing.
            Step::Outline { cut, .. } if cut.marking == Marking::Draw => None,
            Step::Outline { cut, .. } => Some(CutFile {
                kind: "outline".into(),
                part: Some(cut.part.to_string()),
                line: [cut.around.x, cut.around.y, cut.around.right(), cut.around.top()].map(|v| to(Length(v))),
                reading: 0.0,
                from: "left".into(),
                edge: None,
                motif: None,
                frees: freed(&cut.pieces),
            }),
            Step::Cut { cut, .. } => Some(CutFile {
                kind: match cut.kind {
                    CutKind::SquareEnd => "square-end",
                    CutKind::Selvedge => "selvedge",
                    CutKind::Fold => "fold",
                    CutKind::Through => "through",
                    CutKind::Stopped => "stopped",
                }
                .into(),
                part: Some(cut.part.to_string()).filter(|_| cut.kind != CutKind::Fold),
                line: [to(cut.line.x1), to(cut.line.y1), to(cut.line.x2), to(cut.line.y2)],
                reading: to(cut.reading),
                motif: cut.motif.map(to),
                from: match cut.from {
                    Edge::Left => "left",
                    Edge::Near => "near",
                }
                .into(),
                edge: Some(to(Length(cut.edge.at))),
                frees: freed(&cut.frees),
            }),
        })
        .collect()
}

/// Reads a lay, for checking, without its cuts.
///
/// # Errors
/// One line that names the field and what it should be.
pub fn read_lay(text: &str) -> Result<Lay, FormatError> {
    read_lay_with_cuts(text).map(|(lay, _)| lay)
}

/// Reads a lay and the cuts it states, of each of its cloths.
///
/// # Errors
/// As [`read_lay`].
pub fn read_lay_with_cuts(text: &str) -> Result<(Lay, Vec<Vec<StatedCut>>), FormatError> {
    let file: LayFile = FormatError::read(text)?;
    if file.format != "bofta-lay" || file.version != 1 {
        let given = format!("{} {}", file.format, file.version);
        return Err(FieldProblem::new("format", &given, format!("“{given}”: should be “bofta-lay” version 1")).into());
    }
    let units = Units(file.units);
    let placed: usize = file.cloths.iter().map(|c| c.placements.len()).sum();
    let left: usize = file.cloths.iter().map(|c| c.offcuts.len()).sum();
    for (what, n) in [("placements", placed as u64), ("offcuts", left as u64), ("unplaced", file.unplaced.len() as u64)]
    {
        if n > MOST_PIECES {
            let message = format!("{n} {what}: a lay holds at most {MOST_PIECES}");
            return Err(FieldProblem::new(format!("cloths.{what}"), n, message).into());
        }
    }
    let mut cloths = Vec::with_capacity(file.cloths.len());
    let mut cuts = Vec::with_capacity(file.cloths.len());
    for (i, cloth) in file.cloths.into_iter().enumerate() {
        cuts.push(stated_cuts(&units, &cloth.cuts).map_err(|p| p.within(&format!("cloths[{i}]")))?);
        cloths.push(cloth_lay(&units, cloth).map_err(|p| p.within(&format!("cloths[{i}]")))?);
    }
    let money = |field: &str, value: f64| {
        if value.is_finite() && value.abs() <= 1e12 {
            return Ok(Money((value * 100.0).round() as i64));
        }
        Err(FieldProblem::new(field, shown(value), format!("{}: is at most 1e12", shown(value))))
    };
    let lay = Lay {
        job: file.job,
        cloths,
        unplaced: file.unplaced.into_iter().map(|u| Unplaced { piece: u.piece, count: u.count, why: u.why }).collect(),
        cost: money("cost", file.cost)?,
        bound: Bound {
            cost: money("bound.cost", file.bound.cost)?,
            length: units.length("bound.length", file.bound.length)?,
        },
        sheets: file.sheets,
        proven: file.proven,
        warnings: file.warnings,
        iterations: file.iterations,
    };
    Ok((lay, cuts))
}

fn stated_cuts(units: &Units, cuts: &[CutFile]) -> Result<Vec<StatedCut>, FieldProblem> {
    let cut = |(j, cut): (usize, &CutFile)| {
        let [x1, y1, x2, y2] = cut.line;
        let length = |value: f64| units.length(&format!("cuts[{j}].line"), value);
        let line = [length(x1)?, length(y1)?, length(x2)?, length(y2)?];
        Ok(StatedCut { outline: cut.kind == "outline", line, frees: cut.frees.clone() })
    };
    cuts.iter().enumerate().map(cut).collect()
}

fn cloth_lay(units: &Units, c: ClothFile) -> Result<ClothLay, FieldProblem> {
    let mut placements = Vec::with_capacity(c.placements.len());
    for (j, p) in c.placements.into_iter().enumerate() {
        let field = |name: &str| format!("placements[{j}].{name}");
        let turn = Turn::new(p.turn).ok_or_else(|| {
            FieldProblem::new(field("turn"), p.turn, format!("{}: is a multiple of 45 below 360", p.turn))
        })?;
        placements.push(Placement {
            piece: p.piece,
            copy: p.copy,
            x: units.length(&field("x"), p.x)?,
            y: units.length(&field("y"), p.y)?,
            turn,
            mirrored: p.mirrored,
            on_fold: p.on_fold,
            single: p.single,
        });
    }
    let mut offcuts = Vec::with_capacity(c.offcuts.len());
    for (j, o) in c.offcuts.iter().enumerate() {
        let length = |value: f64| units.length(&format!("offcuts[{j}]"), value);
        offcuts.push(match o {
            OffcutFile::Rect([x, y, w, h]) => {
                Offcut::Rect { x: length(*x)?, y: length(*y)?, width: length(*w)?, height: length(*h)? }
            }
            OffcutFile::Polygon(corners) if corners.len() > MOST_LEFT_CORNERS => {
                let message = format!("it has {} corners: at most {MOST_LEFT_CORNERS} are read", corners.len());
                return Err(FieldProblem::new(format!("offcuts[{j}]"), corners.len(), message));
            }
            OffcutFile::Polygon(corners) => Offcut::Polygon(
                corners.iter().map(|[x, y]| Ok(Point::new(length(*x)?, length(*y)?))).collect::<Result<_, _>>()?,
            ),
        });
    }
    Ok(ClothLay {
        cloth: c.id,
        copy: c.copy,
        needed_length: units.length("needed_length", c.needed_length)?,
        buy_length: units.length("buy_length", c.buy_length)?,
        used_share: c.used_share,
        placements,
        offcuts,
        bound: c.bound.map_or(Ok(Length::ZERO), |bound| units.length("bound", bound))?,
        proof: c.proof,
        through: false,
    })
}
