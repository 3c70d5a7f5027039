//! A weekend duffel: a body round two circular ends, a zip along the top, webbing that runs under the body.
//!
//! Body L + 2s long and π·d less the zip + 2z round; ends circles d + 2s. A pair of straps that runs up the body from
//! the base, over as the handle and down again: 2 × (2 × run + handle).

use super::draft::{Draft, Finished, Good, GoodKind, Hardware, Notice};
use super::extras::{Extras, Place};
use super::field::{Field, Group};
use super::order::{Phase, Step, in_order};
use super::pocket::{Pocket, PocketKind, PocketSides};
use super::problems::Problems;
use super::sewn::{Edge, Seam, Stretch};
use super::solid::{Solid, ThreadKind};
use super::wall::{Ends, Looks, Moves, Seen, Side, Wall, Webbing};
use super::zip::{sliders_field, with_sliders, zip};
use super::{Design, quilting, round, strap};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, From, Mark, Part, Piece, Term};
use std::f64::consts::PI;

/// A duffel by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Duffel {
    /// From end to end.
    pub width: Length,
    /// Diameter of the ends.
    pub height: Length,
    /// How much of the zip's tape shows.
    pub zip_shows: Length,
    /// How many sliders the zip has.
    pub zip_sliders: u32,
    /// Whether it is lined.
    pub lined: bool,
    /// Quilted before it is trimmed.
    pub quilted: bool,
    /// A pocket sewn under the webbing on both sides.
    pub pocket: bool,
    /// Its finished height.
    pub pocket_height: Length,
    /// Width of the webbing.
    pub strap_width: Length,
    /// How much of each handle shows above the body.
    pub strap_length: Length,
    /// From the middle to each line of webbing.
    pub strap_inset: Length,
    /// A shoulder strap on rings, its longest wearing length; 0 for none.
    pub shoulder: Length,
    /// Loops, tabs, a label.
    pub extras: Extras,
    /// Seams along the body and round the ends.
    pub seam_side: Length,
    /// The zip's seam.
    pub seam_top: Length,
}

impl Duffel {
    /// A strap over the shoulder, its ring tabs and what it hangs on.
    fn shoulder_strap(
        &self,
        goods: &mut Vec<Good>,
        hardware: &mut Vec<Hardware>,
        notices: &mut Vec<Notice>,
        ruler: Ruler,
    ) {
        let two = default_length(ruler.system(), 16, 50);
        let strap = Dimension::sum(
            vec![
                Term::once("longest", self.shoulder, "shoulder"),
                Term::times("round ring and slider", 2, two, "shoulder"),
            ],
            ruler,
        );
        goods.push(Good {
            kind: GoodKind::Webbing,
            name: "Shoulder strap".into(),
            count: 1,
            length: strap,
            width: Some(self.strap_width),
        });
        let tab = Dimension::sum(vec![Term::times("round the ring, and caught", 2, two, "shoulder")], ruler);
        goods.push(Good {
            kind: GoodKind::Webbing,
            name: "Ring tabs".into(),
            count: 2,
            length: tab,
            width: Some(self.strap_width),
        });
        hardware.push(Hardware {
            name: "D-ring".into(),
            count: 2,
            size: Some(self.strap_width),
            note: "inside width".into(),
        });
        hardware.push(Hardware {
            name: "Swivel hook".into(),
            count: 2,
            size: Some(self.strap_width),
            note: "inside width".into(),
        });
        hardware.push(Hardware {
            name: "Slider".into(),
            count: 1,
            size: Some(self.strap_width),
            note: "inside width".into(),
        });
        // Doubled back through the slider it is at most half as long again shorter.
        let shortest = Problems::new(ruler).show((self.shoulder / 2 + self.strap_width * 2).round_to(ruler.step()));
        notices.push(Notice::note(
            "shoulder",
            format!("The shoulder strap wears from about {shortest} to {}.", Problems::new(ruler).show(self.shoulder)),
        ));
    }

    /// All that cannot stand, each named by its field.
    fn problems(&self, ruler: Ruler) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        problems.size("width", "length", self.width);
        problems.size("height", "diameter", self.height);
        problems.seam("seam_side", "end seam", self.seam_side, self.height / 2, "half the diameter");
        problems.seam("seam_top", "zip seam", self.seam_top, self.height / 2, "half the diameter");
        problems.between("zip_shows", "zip that shows", self.zip_shows, Length::ZERO, self.height / 2);
        problems.between("strap_width", "webbing", self.strap_width, Length::MILLIMETRE * 10, self.width / 4);
        problems.between(
            "strap_inset",
            "distance of the webbing",
            self.strap_inset,
            self.strap_width,
            self.width / 2 - self.strap_width,
        );
        problems.between("strap_length", "handle", self.strap_length, self.strap_inset * 2, Length::METRE * 3);
        problems.between("shoulder", "shoulder strap", self.shoulder, Length::ZERO, Length::METRE * 3);
        if self.pocket {
            problems.between("pocket_height", "pocket", self.pocket_height, Length::CENTIMETRE, self.girth() / 2);
        }
        problems.end()
    }

    fn steps(&self) -> Vec<Step> {
        let step = |phase, key: &'static str, text: &'static str| Step::new(phase, key, text);
        let quilt =
            step(Phase::Backed, "quilt-outer-panel", "Quilt the body from the middle out, then trim it to size.");
        let pocket =
            step(Phase::Flat, "pocket", "Fold the pockets, lay them on the body between the lines of webbing.");
        let over = if self.pocket { ", over the pockets’ edges" } else { "" };
        let webbing = format!("Stitch the webbing on from the base up{over}, leaving the handles free.");
        let lining = if self.lined { ", lining on the other side" } else { "" };
        let zip = format!("Sew the zip to both long edges of the body{lining}.");
        let ends = "Notch body and ends in quarters; sew the ends in, the zip open, the circle up; clip the body.";
        let bind = if self.lined {
            "Sew the lining’s ends in the same way, or bind the seams of outer and lining together."
        } else {
            "Bind the seams of the ends."
        };
        let shoulder =
            "Tack the ring tabs into the end seams before they are sewn; thread the strap through slider and hooks.";
        let all = [
            self.quilted.then_some(quilt),
            self.pocket.then_some(pocket),
            Some(Step::new(Phase::Outer, "webbing", webbing)),
            (self.shoulder > Length::ZERO).then(|| step(Phase::Flat, "shoulder", shoulder)),
            Some(Step::new(Phase::Together, "zip", zip)),
            Some(step(Phase::Together, "ends", ends)),
            Some(step(Phase::Last, "bind", bind)),
        ];
        in_order(all.into_iter().flatten())
    }

    fn girth(&self) -> Length {
        round::circumference(self.height)
    }

    fn body(&self, id: &'static str, name: &'static str, part: Part, ruler: Ruler) -> Piece {
        let wide = Dimension::sum(
            vec![
                Term::once("from end to end", self.width, "width"),
                Term::times("end seams", 2, self.seam_side, "seam_side"),
            ],
            ruler,
        );
        let tall = Dimension::sum(
            vec![
                Term::once("round the ends, π × the diameter", self.girth(), "height"),
                Term::times("less the zip that shows", -1, self.zip_shows, "zip_shows"),
                Term::times("zip seams", 2, self.seam_top, "seam_top"),
            ],
            ruler,
        );
        let quarters = [1, 2, 3].map(|k| Mark {
            boxes: false,
            share: true,
            name: "quarter notch".into(),
            distance: tall.size * k / 4,
            from: From::TopEdge,
            and: None,
        });
        let webbing = Mark {
            boxes: false,
            share: false,
            name: "webbing, its middle".into(),
            distance: self.strap_inset,
            from: From::Middle,
            and: None,
        };
        Piece::new(id, name, part, wide, tall).marked(quarters).marked([webbing])
    }

    fn end(&self, id: &'static str, name: &'static str, part: Part, ruler: Ruler) -> Piece {
        round::circle((id, name), part, ("height", self.height), ("seam_side", self.seam_side), ruler).times(2)
    }
}

impl Design for Duffel {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            width: size(160, 500),
            height: size(80, 260),
            zip_shows: size(6, 15),
            zip_sliders: 1,
            lined: true,
            quilted: false,
            pocket: true,
            pocket_height: size(56, 180),
            strap_width: size(12, 40),
            strap_length: size(176, 550),
            strap_inset: size(40, 120),
            shoulder: size(400, 1250),
            extras: Extras::default_for(system),
            seam_side: size(4, 10),
            seam_top: size(4, 10),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let pocket = self.pocket;
        let mut all = vec![
            Field::size("width", "From end to end", Group::Size, &mut self.width).scaling(),
            Field::size("height", "Across the ends", Group::Size, &mut self.height).scaling(),
            Field::size("zip_shows", "How much of the zip shows", Group::Closure, &mut self.zip_shows),
            sliders_field(Group::Closure, &mut self.zip_sliders),
            Field::toggle("quilted", "Body quilted before it is trimmed", Group::Front, &mut self.quilted),
            Field::toggle("lined", "Lined", Group::Lining, &mut self.lined),
            Field::toggle("pocket", "Pockets under the webbing", Group::Pocket, &mut self.pocket),
            Field::size("pocket_height", "Tall, finished", Group::Pocket, &mut self.pocket_height)
                .scaling()
                .only_if(pocket),
            Field::size("strap_width", "Width of the webbing", Group::Straps, &mut self.strap_width),
            Field::size("strap_length", "How much of a handle shows", Group::Straps, &mut self.strap_length).reaching(),
            Field::size("strap_inset", "From the middle to the webbing", Group::Straps, &mut self.strap_inset)
                .scaling(),
            Field::size("shoulder", "Shoulder strap, longest; 0 for none", Group::Straps, &mut self.shoulder),
            Field::seam("seam_side", "End seams", &mut self.seam_side),
            Field::seam("seam_top", "Zip seam", &mut self.seam_top),
        ];
        all.extend(self.extras.fields(false));
        all
    }

    fn walls(&self, _: Ruler) -> Vec<Wall> {
        // From the zip down to the middle of the base; what is left and right of it is caught in the end seams.
        let face = (self.width, (self.girth() - self.zip_shows) / 2);
        let front = Wall::new(Side::Front, "outer-panel", face, self.seam_side, self.seam_top);
        let front = front.between((self.seam_side, "seam_side"));
        let front = Wall { webbing: Some(Webbing { apart: self.strap_inset * 2, wide: self.strap_width }), ..front };
        let mut walls = vec![front.clone(), front.on(Side::Back).turned(self.seam_top)];
        if self.lined {
            let inside = Wall { piece: Some("lining-panel"), webbing: None, ..front };
            walls.extend([inside.on(Side::InsideFront), inside.on(Side::InsideBack).turned(self.seam_top)]);
        }
        walls
    }

    fn seen(&self) -> Vec<(Group, Seen)> {
        // Stitched up the body as far as a quarter of the way round from the base, there the handle leaves it.
        let free = self.height / 4;
        let Some(drop) = strap::drop(self.strap_length, self.strap_inset * 2) else { return vec![] };
        let ends = Ends { field: "strap_inset", is: self.strap_inset, outward: 1 };
        let handle = |side| Seen {
            side,
            looks: Looks::Handle { cloth: None, wide: self.strap_width, drop },
            left: (self.width - self.strap_width) / 2 - self.strap_inset,
            down: free,
            width: self.strap_inset * 2 + self.strap_width,
            height: (self.girth() - self.zip_shows) / 2 - free,
            moves: Moves { ends: Some(ends), ..Moves::default() },
        };
        [Side::Front, Side::Back].map(|side| (Group::Straps, handle(side))).into()
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        self.problems(ruler)?;
        let body = self.body("outer-panel", "Body", Part::Outer, ruler);
        let mut pieces = vec![body];
        pieces.push(self.end("end", "End", Part::Outer, ruler));
        if self.lined {
            pieces.push(self.body("lining-panel", "Lining body", Part::Lining, ruler));
            pieces.push(self.end("lining-end", "Lining end", Part::Lining, ruler));
        }
        if self.pocket {
            let pocket = Pocket {
                kind: PocketKind::Slip,
                called: ("pocket", "Pocket"),
                count: 2,
                wide: Term::times("from webbing to webbing", 2, self.strap_inset, "strap_inset"),
                height: self.pocket_height,
                divisions: 1,
                ease: Length::ZERO,
                sides: PocketSides::UnderWebbing(self.strap_width),
                base: self.seam_side,
            };
            pieces.extend(pocket.pieces(ruler));
        }
        if self.quilted {
            quilting::quilt(&mut pieces, "outer-panel", ruler);
        }
        // From the base up the side: a quarter of the way round is the widest place, the handle leaves there.
        let run = (self.girth() - self.zip_shows) / 2 - self.height / 4;
        let loops = Dimension::sum(
            vec![
                Term::times("up the body, four times", 4, run, "height"),
                Term::times("handles showing", 2, self.strap_length, "strap_length"),
                Term::once("overlap under the base", default_length(ruler.system(), 16, 50), "strap_width"),
            ],
            ruler,
        );
        let mut goods = vec![Good {
            kind: GoodKind::Webbing,
            name: "Handles, one loop under the body".into(),
            count: 1,
            length: loops,
            width: Some(self.strap_width),
        }];
        let mut hardware = vec![with_sliders(zip("Zip", self.width, "the body’s length", ruler), self.zip_sliders)];
        let mut notices = vec![Notice::note(
            "strap_width",
            "No strength is promised for any strap: load the bag beyond what it will carry before trusting it.",
        )];
        if self.shoulder > Length::ZERO {
            self.shoulder_strap(&mut goods, &mut hardware, &mut notices, ruler);
        }
        let r = self.height.0 as f64 / 2.0 / Length::CENTIMETRE.0 as f64;
        let ml = PI * r * r * self.width.0 as f64 / Length::CENTIMETRE.0 as f64;
        let mut draft =
            Draft { pieces, goods, hardware, steps: self.steps(), notices, millilitres: ml as i64, ..Draft::default() };
        let place = Place {
            outer: "outer-panel",
            outer_top: self.seam_top,
            lining_top: None,
            face: self.girth() / 2,
            seam: self.seam_side,
        };
        self.extras.onto(&mut draft, &place, false, ruler);
        Ok(draft)
    }

    fn finished_from_cut(&self, draft: &Draft) -> Vec<Finished> {
        let (Some(body), Some(end)) = (draft.piece("outer-panel"), draft.piece("end")) else { return vec![] };
        let girth = body.height.size - self.seam_top * 2 + self.zip_shows;
        vec![
            Finished {
                name: "from end to end".into(),
                field: "width".into(),
                asked: self.width,
                back: body.width.size - self.seam_side * 2,
            },
            Finished {
                name: "across the ends".into(),
                field: "height".into(),
                asked: self.height,
                back: end.width.size - self.seam_side * 2,
            },
            Finished {
                name: "across the body".into(),
                field: "height".into(),
                asked: self.height,
                back: Length((girth.0 as f64 / PI).round() as i64),
            },
        ]
    }

    fn seams(&self, _: Ruler) -> Vec<Seam> {
        let (side, top) = (self.seam_side, self.seam_top);
        let mut seams = vec![];
        let lining = ("lining-panel", "lining-end", "bind");
        for (body, end, step) in [("outer-panel", "end", "ends")].into_iter().chain(self.lined.then_some(lining)) {
            // Round an end go the body and what shows of the zip.
            seams.push(
                Seam::new(
                    "round the end",
                    step,
                    Stretch::new(end, Edge::Round, side, Length::ZERO),
                    Stretch::new(body, Edge::Side, side, top * 2),
                )
                .easing(self.zip_shows),
            );
        }
        let of = |body| Stretch::new(body, Edge::Top, top, side * 2);
        let other = if self.lined { "lining-panel" } else { "outer-panel" };
        seams.push(Seam::new("along the zip", "zip", of("outer-panel"), of(other)));
        seams
    }

    fn solid(&self, _: &Draft) -> Solid {
        let (w, h) = (self.width.0 as f64, self.height.0 as f64);
        let r = h / 2.0;
        let at = |x: f64, angle: f64| [x, r + r * angle.sin(), r + r * angle.cos()];
        let ring = |x: f64| -> Vec<[f64; 3]> { (0..32).map(|i| at(x, f64::from(i) * PI / 16.0)).collect() };
        // The hull seen from the front: from the top back round the front to the underside.
        let seen: Vec<f64> = (0..=16).map(|i| PI * 0.36 + f64::from(i) / 16.0 * PI).collect();
        let mut side: Vec<[f64; 3]> = seen.iter().map(|a| at(0.0, *a)).collect();
        side.extend(seen.iter().rev().map(|a| at(w, *a)));
        let mut solid = Solid::default().face(side, Part::Outer, 0).face(ring(w), Part::Outer, 2);
        let (middle, inset) = (w / 2.0, self.strap_inset.0 as f64);
        if self.pocket {
            let (low, high) = (PI * 1.25, PI * 0.95);
            let (a, b) = (middle - inset, middle + inset);
            let mut face: Vec<[f64; 3]> = (0..=8).map(|i| at(a, low + (high - low) * f64::from(i) / 8.0)).collect();
            face.extend((0..=8).rev().map(|i| at(b, low + (high - low) * f64::from(i) / 8.0)));
            solid = solid.face(face, Part::Pocket, 1);
        }
        // One loop: up the body, over as the handle, which goes on as the body leans there, and down again.
        let leaves = PI * 0.8;
        let rise = ((self.strap_length.0 as f64) / 2.0 - inset).max(h * 0.15);
        let up = |x: f64, i: i32| at(x, PI * 1.3 - f64::from(i) / 12.0 * (PI * 1.3 - leaves));
        let over = (0..=20).map(|i| {
            let t = f64::from(i) / 20.0;
            let high = rise * (1.0 - (2.0 * t - 1.0).abs().powf(2.6)).max(0.0);
            let [x, y, z] = at(middle - inset + 2.0 * inset * t, leaves);
            [x, y - high * leaves.cos(), z + high * leaves.sin()]
        });
        let run: Vec<[f64; 3]> = (0..12)
            .map(|i| up(middle - inset, i))
            .chain(over)
            .chain((0..12).rev().map(|i| up(middle + inset, i)))
            .collect();
        solid = solid.strap(run, self.strap_width);
        for thread in solid.threads.iter_mut().filter(|t| t.kind == ThreadKind::Strap) {
            thread.kind = ThreadKind::Webbing;
        }
        solid
            .thread(ThreadKind::Zip, [at(w * 0.03, PI * 0.5), at(w * 0.97, PI * 0.5)])
            .grip("width", [0.0, 0.0, r], [w, 0.0, r])
            .grip("height", [0.0, 0.0, r], [0.0, h, r])
    }
}
