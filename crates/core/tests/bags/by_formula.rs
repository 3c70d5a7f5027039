//! Every body against formulas written down a second time, in plain numbers: random sizes and seams, finer than the ruler,
//! in both systems. Sources: docs/rules.md, which marks what is common practice; the formulas here do not use the code's.
#![allow(missing_docs)]

use bofta_core::bag::{Bag, Draft, Family};
use bofta_core::lay::Random;
use bofta_core::measure::{Length, Ruler, System};
use std::collections::BTreeMap;
use std::f64::consts::PI;

/// Finished sizes and seams as typed, by their field, in inches or centimetres.
type Typed = BTreeMap<&'static str, f64>;

/// How many of which piece, and its cut width and height before rounding.
type Cut = (u32, &'static str, f64, f64);

struct Trial {
    family: Family,
    /// Choices that are made first.
    choices: &'static [(&'static str, &'static str)],
    /// Sizes to type: the field, the least in inches, and by how many inches more at most.
    sizes: &'static [(&'static str, f64, f64)],
    /// What each piece is cut to.
    cut: fn(&Typed) -> Vec<Cut>,
}

const SEAMS: (f64, f64) = (0.25, 0.75);

/// `+ a seam of …`, in a sum.
fn of(t: &Typed, key: &str) -> f64 {
    t.get(key).copied().unwrap_or_else(|| panic!("{key} is typed"))
}

const TRIALS: &[Trial] = &[
    // Two panels (W + D + 2s) × (H + D/2 + b + t), the lining alike.
    Trial {
        family: Family::Tote,
        choices: &[("straps", "no"), ("pocket", "no")],
        sizes: &[("width", 8.0, 12.0), ("height", 8.0, 12.0), ("depth", 1.0, 5.0)],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "depth") / 2.0 + of(t, "seam_base") + of(t, "seam_top");
            vec![(2, "outer-panel", wide, tall), (2, "lining-panel", wide, tall)]
        },
    },
    // One panel over the base (W + D + 2s) × (2H + D + 2t).
    Trial {
        family: Family::Tote,
        choices: &[("straps", "no"), ("pocket", "no"), ("base", "fold")],
        sizes: &[("width", 8.0, 12.0), ("height", 8.0, 12.0), ("depth", 1.0, 5.0)],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = 2.0 * of(t, "height") + of(t, "depth") + 2.0 * of(t, "seam_top");
            vec![(1, "outer-panel", wide, tall), (1, "lining-panel", wide, tall)]
        },
    },
    // Hemmed: the hem and its first turn on the outer; the lining ends at the finished mouth.
    Trial {
        family: Family::Tote,
        choices: &[("straps", "no"), ("pocket", "no"), ("mouth", "double-hem"), ("depth", "0")],
        sizes: &[("width", 8.0, 12.0), ("height", 8.0, 12.0), ("hem_turn", 0.25, 0.5), ("hem_depth", 1.0, 1.0)],
        cut: |t| {
            let wide = of(t, "width") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "seam_base");
            vec![
                (2, "outer-panel", wide, tall + of(t, "hem_turn") + of(t, "hem_depth")),
                (2, "lining-panel", wide, tall),
            ]
        },
    },
    // Faced, with a recessed zip: the facing f + t + p, the lining without it, a zip panel for each half of the depth.
    Trial {
        family: Family::Tote,
        choices: &[("straps", "no"), ("pocket", "no"), ("mouth", "facing-zip")],
        sizes: &[
            ("width", 12.0, 8.0),
            ("height", 10.0, 8.0),
            ("depth", 3.0, 3.0),
            ("facing_depth", 2.0, 2.0),
            ("zip_short", 1.0, 2.0),
        ],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "depth") / 2.0 + of(t, "seam_base");
            let (seam, facing) = (of(t, "seam_top"), of(t, "facing_depth"));
            let panel = (
                of(t, "width") + of(t, "depth") - of(t, "zip_short") + 2.0 * of(t, "seam_side"),
                of(t, "depth") / 2.0 + 2.0 * seam,
            );
            vec![
                (2, "outer-panel", wide, tall + seam),
                (2, "lining-panel", wide, tall - facing + seam),
                (2, "facing", wide, facing + 2.0 * seam),
                (2, "zip-panel", panel.0, panel.1),
                (2, "zip-panel-lining", panel.0, panel.1),
            ]
        },
    },
    // A doubled band f deep: the panels lose f and take its seam.
    Trial {
        family: Family::Tote,
        choices: &[("straps", "no"), ("pocket", "no"), ("mouth", "band")],
        sizes: &[("width", 8.0, 12.0), ("height", 9.0, 9.0), ("depth", 1.0, 5.0), ("band_depth", 1.0, 2.0)],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall =
                of(t, "height") + of(t, "depth") / 2.0 + of(t, "seam_base") - of(t, "band_depth") + of(t, "seam_top");
            vec![
                (2, "outer-panel", wide, tall),
                (2, "lining-panel", wide, tall),
                (2, "band", wide, 2.0 * of(t, "band_depth") + 2.0 * of(t, "seam_top")),
            ]
        },
    },
    // Straps folded in four, caught in the seam and an inch (2.5 cm) past it.
    Trial {
        family: Family::Tote,
        choices: &[("pocket", "no"), ("lining", "none"), ("mouth", "bound"), ("strap_ends", "outside")],
        sizes: &[
            ("width", 12.0, 8.0),
            ("height", 9.0, 9.0),
            ("depth", 1.0, 5.0),
            ("strap_width", 0.75, 0.75),
            ("strap_length", 20.0, 10.0),
            ("binding_width", 0.375, 0.25),
        ],
        cut: |t| {
            let tucked = of(t, "two inches");
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "depth") / 2.0 + of(t, "seam_base");
            let round = 2.0 * (of(t, "width") + of(t, "depth")) + of(t, "ten inches");
            vec![
                (2, "outer-panel", wide, tall),
                (2, "strap", 4.0 * of(t, "strap_width"), of(t, "strap_length") + 2.0 * tucked),
                (1, "binding", 4.0 * of(t, "binding_width"), round),
            ]
        },
    },
    // Dropped in: both edges turned in; the lining ends 1⁄16 in (1.5 mm) below the edge.
    Trial {
        family: Family::Tote,
        choices: &[("straps", "no"), ("pocket", "no"), ("mouth", "dropped-in")],
        sizes: &[("width", 8.0, 12.0), ("height", 9.0, 9.0), ("depth", 1.0, 5.0), ("turned_in", 0.5, 0.5)],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "depth") / 2.0 + of(t, "seam_base") + of(t, "turned_in");
            vec![(2, "outer-panel", wide, tall), (2, "lining-panel", wide, tall - of(t, "below the edge"))]
        },
    },
    // A facing over a full lining: f + t and its free edge turned under.
    Trial {
        family: Family::Tote,
        choices: &[("straps", "no"), ("pocket", "no"), ("mouth", "facing")],
        sizes: &[
            ("width", 8.0, 12.0),
            ("height", 9.0, 9.0),
            ("depth", 1.0, 5.0),
            ("facing_depth", 2.0, 1.5),
            ("turned_in", 0.5, 0.5),
        ],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "depth") / 2.0 + of(t, "seam_base") + of(t, "seam_top");
            let facing = of(t, "facing_depth") + of(t, "seam_top") + of(t, "turned_in");
            vec![(2, "outer-panel", wide, tall), (2, "lining-panel", wide, tall), (2, "facing", wide, facing)]
        },
    },
    // A slip pocket doubled, folded at its top edge; straps turned in and folded once, caught in the seam and past it.
    Trial {
        family: Family::Tote,
        choices: &[("strap_make", "turned-in"), ("lining", "same"), ("depth", "0")],
        sizes: &[
            ("width", 12.0, 6.0),
            ("height", 12.0, 6.0),
            ("strap_width", 0.75, 0.75),
            ("strap_length", 20.0, 10.0),
            ("pocket_width", 5.0, 2.0),
            ("pocket_height", 4.0, 2.0),
            ("pocket_below", 1.0, 1.0),
        ],
        cut: |t| {
            let (s, p) = (of(t, "seam_side"), of(t, "seam_top"));
            let size = (of(t, "width") + 2.0 * s, of(t, "height") + of(t, "seam_base") + p);
            let strap =
                (2.0 * of(t, "strap_width") + 2.0 * s, of(t, "strap_length") + 2.0 * p + 2.0 * of(t, "an inch"));
            vec![
                (2, "outer-panel", size.0, size.1),
                (2, "lining-panel", size.0, size.1),
                (1, "slip-pocket", of(t, "pocket_width") + 2.0 * s, 2.0 * of(t, "pocket_height") + 2.0 * s),
                (2, "strap", strap.0, strap.1),
            ]
        },
    },
    // Its casing caught in the top seam, reversible: no casing on the panels, strips with both ends turned once.
    Trial {
        family: Family::Drawstring,
        choices: &[("base", "seam"), ("lined", "yes"), ("casing", "in-seam"), ("reversible", "yes")],
        sizes: &[
            ("width", 9.0, 8.0),
            ("height", 11.0, 9.0),
            ("casing_depth", 1.0, 1.0),
            ("hem_turn", 0.25, 0.25),
            ("clearance", 0.25, 0.5),
        ],
        cut: |t| {
            let wide = of(t, "width") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "seam_base") + of(t, "seam_top");
            let strip = of(t, "width") - 2.0 * of(t, "clearance") + 2.0 * of(t, "hem_turn");
            vec![
                (2, "outer-panel", wide, tall),
                (2, "lining-panel", wide, tall),
                (2, "casing", strip, 2.0 * of(t, "casing_depth") + 2.0 * of(t, "seam_top")),
            ]
        },
    },
    // Boxed at the base and boxed all round: half the depth once, or at both ends.
    Trial {
        family: Family::Pouch,
        choices: &[("zip_tabs", "no"), ("style", "boxed")],
        sizes: &[("width", 7.0, 6.0), ("height", 5.0, 5.0), ("depth", 2.0, 3.0)],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "depth") / 2.0 + of(t, "seam_base") + of(t, "seam_top");
            vec![(2, "outer-panel", wide, tall), (2, "lining-panel", wide, tall)]
        },
    },
    Trial {
        family: Family::Pouch,
        choices: &[("zip_tabs", "no"), ("style", "all-boxed"), ("lined", "no"), ("seam_kind", "plain")],
        sizes: &[("width", 7.0, 6.0), ("height", 5.0, 5.0), ("depth", 2.0, 2.0)],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "depth") + of(t, "seam_base") + of(t, "seam_top");
            vec![(2, "outer-panel", wide, tall)]
        },
    },
    // A sack in one piece: (W + 2s) × 2 (H + casing + turn).
    Trial {
        family: Family::Drawstring,
        choices: &[],
        sizes: &[("width", 8.0, 8.0), ("height", 9.0, 9.0), ("casing_depth", 1.0, 1.0), ("hem_turn", 0.25, 0.25)],
        cut: |t| {
            let tall = of(t, "height") + of(t, "casing_depth") + of(t, "hem_turn");
            vec![(1, "outer-panel", of(t, "width") + 2.0 * of(t, "seam_side"), 2.0 * tall)]
        },
    },
    // Boxed, lined, its casing sewn on: strips as long as the panel less a clearance, ends turned twice.
    Trial {
        family: Family::Drawstring,
        choices: &[("base", "boxed"), ("lined", "yes"), ("casing", "sewn-on")],
        sizes: &[
            ("width", 9.0, 8.0),
            ("height", 11.0, 9.0),
            ("depth", 2.0, 3.0),
            ("casing_depth", 1.0, 1.0),
            ("hem_turn", 0.25, 0.25),
            ("clearance", 0.25, 0.5),
        ],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let tall = of(t, "height") + of(t, "depth") / 2.0 + of(t, "seam_base") + of(t, "seam_top");
            let strip = of(t, "width") + of(t, "depth") - 2.0 * of(t, "clearance") + 4.0 * of(t, "hem_turn");
            vec![
                (2, "outer-panel", wide, tall),
                (2, "lining-panel", wide, tall),
                (2, "casing", strip, 2.0 * of(t, "casing_depth") + 2.0 * of(t, "seam_side")),
            ]
        },
    },
    // Round at the base: the wall goes round the seam line of the circle.
    Trial {
        family: Family::Drawstring,
        choices: &[("base", "round")],
        sizes: &[("width", 6.0, 5.0), ("height", 9.0, 9.0), ("casing_depth", 1.0, 1.0), ("hem_turn", 0.25, 0.25)],
        cut: |t| {
            let (d, b) = (of(t, "width"), of(t, "seam_base"));
            let tall = of(t, "height") + b + of(t, "casing_depth") + of(t, "hem_turn");
            vec![(1, "outer-panel", PI * d + 2.0 * of(t, "seam_side"), tall), (1, "base", d + 2.0 * b, d + 2.0 * b)]
        },
    },
    // Flat: (W + 2s) × (H + b + z).
    Trial {
        family: Family::Pouch,
        choices: &[("zip_tabs", "no")],
        sizes: &[("width", 6.0, 6.0), ("height", 5.0, 5.0)],
        cut: |t| {
            let size =
                (of(t, "width") + 2.0 * of(t, "seam_side"), of(t, "height") + of(t, "seam_base") + of(t, "seam_top"));
            vec![(2, "outer-panel", size.0, size.1), (2, "lining-panel", size.0, size.1)]
        },
    },
    // In one piece over the base, boxed: (W + D + 2s) × (2H + D + 2z).
    Trial {
        family: Family::Pouch,
        choices: &[("zip_tabs", "no"), ("style", "boxed"), ("base", "fold"), ("lined", "no"), ("seam_kind", "plain")],
        sizes: &[("width", 7.0, 6.0), ("height", 5.0, 5.0), ("depth", 2.0, 3.0)],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            vec![(1, "outer-panel", wide, 2.0 * of(t, "height") + of(t, "depth") + 2.0 * of(t, "seam_top"))]
        },
    },
    // Half-round: faces W + 2s by H + s + z; the gusset goes round the curve and up both sides.
    Trial {
        family: Family::Pouch,
        choices: &[("zip_tabs", "no"), ("style", "half-round")],
        sizes: &[("width", 6.0, 3.0), ("height", 5.0, 3.0), ("depth", 2.0, 2.0)],
        cut: |t| {
            let (w, h, s, z) = (of(t, "width"), of(t, "height"), of(t, "seam_side"), of(t, "seam_top"));
            let round = PI * w / 2.0 + 2.0 * (h - w / 2.0);
            let (face, gusset) = ((w + 2.0 * s, h + s + z), (of(t, "depth") + 2.0 * s, round + 2.0 * z));
            vec![
                (2, "outer-panel", face.0, face.1),
                (1, "gusset", gusset.0, gusset.1),
                (2, "lining-panel", face.0, face.1),
                (1, "lining-gusset", gusset.0, gusset.1),
            ]
        },
    },
    // Fronts (W + 2s) × (H + b), sides D + 2s, the base (W + 2b) × (D + 2b), bound: 4 × the binding.
    Trial {
        family: Family::Caddy,
        choices: &[("pocket", "no"), ("handle", "no"), ("backing", "none"), ("dividers", "2")],
        sizes: &[("width", 8.0, 6.0), ("height", 6.0, 5.0), ("depth", 4.0, 3.0), ("binding_width", 0.375, 0.25)],
        cut: |t| {
            let (w, h, d) = (of(t, "width"), of(t, "height"), of(t, "depth"));
            let (s, b) = (of(t, "seam_side"), of(t, "seam_base"));
            vec![
                (2, "front", w + 2.0 * s, h + b),
                (2, "side", d + 2.0 * s, h + b),
                (1, "base", w + 2.0 * b, d + 2.0 * b),
                (2, "lining-front", w + 2.0 * s, h + b),
                (2, "lining-side", d + 2.0 * s, h + b),
                (1, "lining-base", w + 2.0 * b, d + 2.0 * b),
                // Doubled, three quarters as tall as the caddy.
                (2, "divider", d + 2.0 * s, 2.0 * (h * 0.75 + b)),
                (1, "binding", 4.0 * of(t, "binding_width"), 2.0 * (w + d) + of(t, "ten inches")),
            ]
        },
    },
    // The body goes round the ends less what shows of the zip; the ends are circles.
    Trial {
        family: Family::Duffel,
        choices: &[("pocket", "no")],
        sizes: &[("width", 16.0, 8.0), ("height", 8.0, 4.0), ("zip_shows", 0.25, 0.75), ("shoulder", 40.0, 10.0)],
        cut: |t| {
            let (l, d, s) = (of(t, "width"), of(t, "height"), of(t, "seam_side"));
            let tall = PI * d - of(t, "zip_shows") + 2.0 * of(t, "seam_top");
            vec![
                (1, "outer-panel", l + 2.0 * s, tall),
                (2, "end", d + 2.0 * s, d + 2.0 * s),
                (1, "lining-panel", l + 2.0 * s, tall),
                (2, "lining-end", d + 2.0 * s, d + 2.0 * s),
            ]
        },
    },
    // One body over base and flap, a band across it, a loop of 12 in (30 cm) folded in four.
    Trial {
        family: Family::Clutch,
        choices: &[("backing", "none"), ("radius", "0")],
        sizes: &[
            ("width", 8.0, 4.0),
            ("height", 6.0, 3.0),
            ("flap", 4.0, 1.5),
            ("band", 1.0, 1.0),
            ("strap_width", 0.5, 0.25),
        ],
        cut: |t| {
            let (w, s, p) = (of(t, "width") + 2.0 * of(t, "seam_side"), of(t, "seam_side"), of(t, "seam_top"));
            let tall = 2.0 * of(t, "height") + of(t, "flap") + 2.0 * p;
            vec![
                (1, "outer-panel", w, tall),
                (1, "lining-panel", w, tall),
                (1, "band", w, of(t, "band") + 2.0 * p),
                (1, "loop", 4.0 * of(t, "strap_width"), of(t, "a foot") + 2.0 * s),
            ]
        },
    },
    // Upper and base share the height; the seam between them is in both.
    Trial {
        family: Family::CrossBody,
        choices: &[("backing", "none"), ("front", "whole"), ("strap_make", "folded-in-four")],
        sizes: &[
            ("width", 8.0, 4.0),
            ("height", 8.0, 3.0),
            ("depth", 2.0, 2.0),
            ("base_height", 2.5, 1.5),
            ("strap_width", 0.75, 0.5),
            ("strap_length", 45.0, 10.0),
        ],
        cut: |t| {
            let wide = of(t, "width") + of(t, "depth") + 2.0 * of(t, "seam_side");
            let (h, low, half) = (of(t, "height"), of(t, "base_height"), of(t, "depth") / 2.0);
            let (b, z) = (of(t, "seam_base"), of(t, "seam_top"));
            let (two, slider) = (of(t, "two inches"), of(t, "an inch and a half"));
            vec![
                (2, "upper", wide, h - low + b + z),
                (2, "base", wide, low + half + 2.0 * b),
                (2, "lining-panel", wide, h + half + b + z),
                (1, "strap", 4.0 * of(t, "strap_width"), of(t, "strap_length") + two + slider),
                (2, "tab", 4.0 * of(t, "strap_width"), 2.0 * two),
            ]
        },
    },
];

/// The habits that a size of its own does not say, as makers of each system have them.
fn habits(system: System) -> Typed {
    let inches = system == System::Inches;
    let of = |inch: f64, cm: f64| if inches { inch } else { cm };
    BTreeMap::from([
        ("two inches", of(2.0, 5.0)),
        ("ten inches", of(10.0, 25.0)),
        ("a foot", of(12.0, 30.0)),
        ("an inch and a half", of(1.5, 4.0)),
        ("an inch", of(1.0, 2.5)),
        ("below the edge", of(1.5 / 25.4, 0.15)),
    ])
}

/// Types the trial's sizes and any seams into a bag, in sixteenths of an inch or millimetres.
fn typed(trial: &Trial, system: System, random: &mut Random) -> Option<(Bag, Typed)> {
    let mut bag = trial.family.default_for(system);
    for (key, answer) in trial.choices {
        bag.set(key, answer, system).unwrap_or_else(|p| panic!("{key} {answer}: {p}"));
    }
    let mut all = habits(system);
    let seams: Vec<&'static str> = bag
        .clone()
        .fields()
        .iter()
        .filter(|f| !f.idle && ["seam_side", "seam_base", "seam_top"].contains(&f.key))
        .map(|f| f.key)
        .collect();
    let sizes = trial.sizes.iter().copied().chain(seams.into_iter().map(|key| (key, SEAMS.0, SEAMS.1)));
    for (key, least, more) in sizes {
        let inches = least + more * random.below(1_000) as f64 / 1_000.0;
        let value = match system {
            System::Inches => (inches * 16.0).round() / 16.0,
            System::Centimetres => (inches * 25.4).round() / 10.0,
        };
        bag.set(key, &value.to_string(), system).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
        all.insert(key, value);
    }
    // Some together are no bag: a boxing seam wider than its corner. They are refused, and that is tested elsewhere.
    bag.draft(Ruler::default_for(system)).ok().map(|_| (bag, all))
}

/// Up to the next line of the ruler; a millionth over a line is on it.
fn on_the_ruler(size: f64, ruler: Ruler, system: System) -> f64 {
    let step = ruler.step().in_units(system);
    (size / step - 1e-4).ceil() * step
}

fn differences(draft: &Draft, expected: &[Cut], ruler: Ruler, system: System) -> Vec<String> {
    let mut found = vec![];
    for (count, id, wide, tall) in expected {
        let Some(piece) = draft.piece(id) else {
            found.push(format!("there is no {id}"));
            continue;
        };
        let size = [piece.width.size, piece.height.size].map(|l: Length| l.in_units(system));
        let right = [*wide, *tall].map(|s| on_the_ruler(s, ruler, system));
        if piece.count != *count || (size[0] - right[0]).abs() > 1e-4 || (size[1] - right[1]).abs() > 1e-4 {
            found.push(format!("{id}: {} × {size:?}, by hand {count} × {right:?}", piece.count));
        }
    }
    let known: Vec<&str> = expected.iter().map(|(_, id, ..)| *id).collect();
    found.extend(draft.pieces.iter().filter(|p| !known.contains(&p.id.as_ref())).map(|p| format!("{} besides", p.id)));
    found
}

#[test]
fn every_body_is_cut_by_its_formulas() {
    for (n, trial) in TRIALS.iter().enumerate() {
        let mut drafted = 0;
        for number in 0..150 {
            let random = &mut Random::new(number * 100 + n as u64);
            let system = [System::Inches, System::Centimetres][random.below(2)];
            let rulers: Vec<Ruler> = Ruler::ALL.iter().copied().filter(|r| r.system() == system).collect();
            let ruler = rulers[random.below(rulers.len())];
            let Some((bag, sizes)) = typed(trial, system, random) else { continue };
            let Ok(draft) = bag.draft(ruler) else { continue };
            drafted += 1;
            let found = differences(&draft, &(trial.cut)(&sizes), ruler, system);
            assert!(
                found.is_empty(),
                "{:?} {:?}, {number}: {found:#?}\n{sizes:?} on {ruler:?}",
                trial.family,
                trial.choices
            );
        }
        assert!(drafted >= 100, "{:?} {:?}: {drafted} of 150", trial.family, trial.choices);
    }
}

/// What is worked out back from the cut pieces by formulas of this file is what was typed, but for the ruler: the code's own
/// way back is not asked.
#[test]
fn sewn_up_the_bag_is_what_was_typed() {
    for number in 0..300 {
        let random = &mut Random::new(number);
        let system = [System::Inches, System::Centimetres][random.below(2)];
        let ruler = Ruler::default_for(system);
        let step = ruler.step().in_units(system);
        let Some((bag, sizes)) = typed(&TRIALS[0], system, random) else { continue };
        let draft = bag.draft(ruler).expect("drafted");
        let panel = draft.piece("outer-panel").expect("a panel");
        let [wide, tall] = [panel.width.size, panel.height.size].map(|l: Length| l.in_units(system));
        let corners = panel.outline().corners();
        // The lower corners are cut out: the base between them, and how far up they go.
        let xs: Vec<f64> = corners.iter().filter(|p| p.y == Length::ZERO).map(|p| p.x.in_units(system)).collect();
        let base = xs.iter().copied().fold(f64::MIN, f64::max) - xs.iter().copied().fold(f64::MAX, f64::min);
        let up = corners.iter().map(|p| p.y.in_units(system)).filter(|y| *y > 0.0).fold(f64::MAX, f64::min);
        let boxing = bag.clone().fields().iter().find_map(|f| match (&f.slot, f.key) {
            (bofta_core::bag::Slot::Length(l), "seam_boxing") => Some(l.in_units(system)),
            _ => None,
        });
        let boxing = boxing.expect("a boxing seam");
        // On the seam lines the base seam is as long as the bag is wide, and twice the leg up is its depth.
        let width = base - 2.0 * boxing;
        let depth = 2.0 * (up - sizes["seam_base"] + boxing);
        let height = tall - sizes["seam_base"] - sizes["seam_top"] - depth / 2.0;
        let girth = wide - 2.0 * sizes["seam_side"];
        for (name, made, asked) in [
            ("wide", width, sizes["width"]),
            ("deep", depth, sizes["depth"]),
            ("tall", height, sizes["height"]),
            ("half the girth", girth, sizes["width"] + sizes["depth"]),
        ] {
            assert!((made - asked).abs() <= 2.0 * step + 1e-6, "{number}: {name} {made}, asked {asked}\n{sizes:?}");
        }
    }
}
