//! The demo: sixteen projects of the Tarn Street Allotments, a society of plot holders who sew from donated cloth.
//! Names and sizes are invented.

use crate::pictures::keep_print;
use anyhow::anyhow;
use bofta_core::cloth::{Flaw, FlawKind, ScrapDraft, TypedDistance};
use bofta_core::ledger::What;
use bofta_core::measure::Length;
use bofta_core::measure::System;
use bofta_core::notions::{Amount, Entry, Ledger, Need, Notion, OfBag, Why};
use bofta_core::project::{ClothField, Edit, LayField, Look, Pattern, Project, ProjectCloth, RowField, Swatch};
use bofta_core::shape::Point;
use bofta_formats::cut_list::read_text;
use bofta_picture::{camera, print_of};
use bofta_store::Store;
use std::time::{SystemTime, UNIX_EPOCH};

/// Fills an empty store.
pub fn fill(store: &Store) -> anyhow::Result<()> {
    let projects = [
        ("flower-show-tote", flower_show_tote()?),
        ("crate-pouch", crate_pouch()?),
        ("windfall-tote", windfall_tote()?),
        ("swap-table-pouch", swap_table_pouch()?),
        ("bean-sack", bean_sack()?),
        ("sowing-day-tote", sowing_day_tote()?),
        ("potting-bench-tote", potting_bench_tote()?),
        ("tool-roll-list", tool_roll_list()?),
        ("raffle-cross-body", raffle_cross_body()?),
        ("kneeler-duffel", kneeler_duffel()?),
        ("bottle-caddy", bottle_caddy()?),
        ("seed-packet-pouch", seed_packet_pouch()?),
        ("onion-sack", onion_sack()?),
        ("kneeler-tote", kneeler_tote()?),
        ("bulb-sack", bulb_sack()?),
        ("seed-swap-tote", seed_swap_tote()?),
        ("harvest-tote", harvest_tote()?),
    ];
    let picture = lavender_print(store)?;
    for (id, project) in &projects {
        store.create(id, project)?;
    }
    for (_, project) in &projects {
        for cloth in &project.cloths {
            store.keep_cloth(&cloth.clone().put_in_cupboard(days_ago(30)))?;
        }
    }
    for mut cloth in cupboard()? {
        if cloth.name == "Lavender lawn" {
            cloth.look = picture.clone();
        }
        store.keep_cloth(&cloth)?;
    }
    for (id, ledger) in notions()? {
        store.keep_ledger(id, &ledger)?;
    }
    Ok(())
}

/// A print as the camera over the table sees it, one repeat marked.
fn lavender_print(store: &Store) -> anyhow::Result<Look> {
    let scene = camera::printed(2);
    let shot = scene.shot();
    let reference = scene.reference(&shot);
    let taken = print_of(&camera::jpeg(&shot.picture, 90), &reference, true)?;
    let kept = keep_print(store, &taken)?;
    let picture = Swatch { key: kept.key, width: reference.width, height: reference.height, one_repeat: true };
    Ok(Look { picture: Some(picture), ..Look::new(Pattern::Sprig, kept.ground, kept.figure) })
}

/// What lies in the tins: id, kind, name, size, system, place, how much came in.
type Tin = (&'static str, &'static str, &'static str, &'static str, System, &'static str, &'static str);

fn notions() -> anyhow::Result<Vec<(&'static str, Ledger)>> {
    use System::{Centimetres as Cm, Inches as In};
    const TINS: [Tin; 12] = [
        ("d-rings-1", "piece", "D-ring", "1", In, "button tin", "12"),
        ("hooks-1", "piece", "Swivel hook", "1", In, "button tin", "5"),
        ("sliders-1", "piece", "Slider", "1", In, "button tin", "3"),
        ("hooks-half", "piece", "Swivel hook", "1/2", In, "button tin", "2"),
        ("d-rings-4", "piece", "D-ring", "4", Cm, "button tin", "2"),
        ("snaps", "piece", "Magnetic snap", "", In, "button tin", "6"),
        ("zips-8", "piece", "Zip", "8", In, "zip jar", "3"),
        ("zips-12", "piece", "Zip", "12", In, "zip jar", "2"),
        ("zip-50", "piece", "Zip", "50", Cm, "zip jar", "1"),
        ("webbing-4", "webbing", "", "4", Cm, "rafter hook", "3 m, 150"),
        ("cord", "cord", "", "", Cm, "rafter hook", "250, 90"),
        ("ribbon", "tape", "Green ribbon", "3/8", In, "zip jar", "2 yd"),
    ];
    let hold = |p| anyhow!("the demo does not hold: {p:?}");
    let mut found = vec![];
    for (id, kind, name, size, system, place, amount) in TINS {
        let notion = Notion::read(kind, name, size, place, system).map_err(hold)?;
        let came = notion.read_amount("amount", amount).map_err(hold)?;
        let put_in = Entry { at: days_ago(40), why: Why::PutIn, came, went: Amount::default() };
        let mut ledger = Ledger::new(notion).with(put_in).map_err(hold)?;
        if id == "d-rings-1" {
            let bag = OfBag { project: "raffle-cross-body".into(), name: "Raffle cross-body".into() };
            let need = Need::Pieces { name: "D-ring".into(), size: ledger.notion.size };
            let more = [(30, Why::ThrownAway, Amount::pieces(1)), (3, Why::Taken { bag, need }, Amount::pieces(2))];
            for (days, why, went) in more {
                let entry = Entry { at: days_ago(days), why, came: Amount::default(), went };
                ledger = ledger.with(entry).map_err(hold)?;
            }
        }
        found.push((id, ledger));
    }
    Ok(found)
}

/// So many days ago, in milliseconds since 1970.
fn days_ago(days: i64) -> i64 {
    let now = SystemTime::now().duration_since(UNIX_EPOCH).map_or(0, |d| d.as_millis() as i64);
    now - days * 86_400_000
}

/// What the plot holders brought besides: name, material, system, place, what is there, look.
type Brought = (&'static str, &'static str, System, &'static str, &'static str, (Pattern, &'static str, &'static str));

/// What came and went since of what was brought: which cloth, how many days ago, what was done, what was typed.
const SINCE: [(&str, i64, What, &str); 3] = [
    ("Slate ticking", 33, What::PutIn, "2 of 30 x 25"),
    ("Slate ticking", 21, What::ThrowAway, "30 x 25"),
    ("Slate ticking", 20, What::ThrowAway, "30 x 25"),
];

fn cupboard() -> anyhow::Result<Vec<ProjectCloth>> {
    use Pattern as P;
    use System::{Centimetres as Cm, Inches as In};
    const BROUGHT: [Brought; 14] = [
        ("Marrow check", "cotton", In, "top shelf", "1 1/4 yd, 2 fat quarters", (P::Check, "#DCE3C4", "#5F7F4B")),
        (
            "Rain-butt denim",
            "canvas",
            In,
            "top shelf",
            "½ yd, even wedge 14 to 10 x 26, tube of 28 x 9",
            (P::Plain, "#5E7791", "#33475E"),
        ),
        ("Lavender lawn", "cotton", Cm, "top shelf", "40 cm, 2 of 30 x 40", (P::Seeds, "#CDBEDD", "#6F568A")),
        ("Straw hessian", "canvas", Cm, "top shelf", "1.2 m", (P::Plain, "#CBB27C", "#94793F")),
        (
            "Sweet-pea sprig",
            "cotton",
            In,
            "green tin",
            "fat eighth, 6 squares of 5 in",
            (P::Sprig, "#F3E2E4", "#A85F72"),
        ),
        ("Compost corduroy", "canvas", In, "top shelf", "¾ yd", (P::Ticking, "#7A5F47", "#513C2B")),
        (
            "Dahlia drill",
            "canvas",
            Cm,
            "blue crate",
            "45 x 70, 30 x 30 less 10 x 12 far right",
            (P::Plain, "#B5514D", "#7F2F2F"),
        ),
        ("Greenhouse oilcloth", "canvas", In, "door", "20 x 24", (P::Check, "#E6EFE6", "#4F8A77")),
        (
            "Pumpkin cotton",
            "cotton",
            In,
            "blue crate",
            "right triangle 15 x 12, 11 x 7",
            (P::Plain, "#D98A3D", "#A35F1E"),
        ),
        (
            "Sparrow seeds",
            "cotton",
            In,
            "blue crate",
            "one-sided wedge 16 to 9 x 12, 9 x 14",
            (P::Seeds, "#E9DFC9", "#6B5B45"),
        ),
        (
            "Slate ticking",
            "cotton",
            Cm,
            "blue crate",
            "half circle 36 across, 22 x 48",
            (P::Ticking, "#E3E4E4", "#5A636B"),
        ),
        ("Beetroot plain", "cotton", In, "blue crate", "even triangle 18 x 16", (P::Plain, "#7B3550", "#4E1E31")),
        (
            "Pond canvas",
            "canvas",
            In,
            "blue crate",
            "14 x 19 less 5 x 6 near left, 8 x 30",
            (P::Plain, "#4F8290", "#2E5661"),
        ),
        ("Snowdrop batting", "fleece", In, "attic", "30 x 44, 12 x 20", (P::Fleece, "#F3F1EA", "#B9B4A4")),
    ];
    let mut names: Vec<&str> = vec![];
    let mut found = vec![];
    for (name, material, system, place, there, (pattern, ground, figure)) in BROUGHT {
        let hold = |p| anyhow!("the demo does not hold: {p:?}");
        let mut cloth = ProjectCloth::new_in_cupboard(name, material, system, &names).map_err(hold)?;
        cloth.look = Look::new(pattern, ground, figure);
        cloth.print = pattern.default_print();
        for (what, value) in [(What::PutIn, there), (What::Place, place)] {
            cloth = cloth.changed_in_cupboard(what, value, days_ago(40)).map_err(hold)?;
        }
        for (_, days, what, value) in SINCE.into_iter().filter(|(of, ..)| *of == name) {
            cloth = cloth.changed_in_cupboard(what, value, days_ago(days)).map_err(hold)?;
        }
        names.push(name);
        found.push(cloth);
    }
    Ok(found)
}

struct Maker(Project);

impl Maker {
    fn edit(&mut self, edit: Edit) -> anyhow::Result<()> {
        let (next, _) = self.0.edited(&edit).map_err(|p| anyhow!("the demo does not hold: {p:?}"))?;
        self.0 = next;
        Ok(())
    }

    fn bag(&mut self, fields: &[(&str, &str)]) -> anyhow::Result<()> {
        fields
            .iter()
            .try_for_each(|(field, value)| self.edit(Edit::Bag { field: (*field).into(), value: (*value).into() }))
    }

    fn family(&mut self, key: &str) -> anyhow::Result<()> {
        self.edit(Edit::Family { family: key.into() })
    }

    fn cloth(
        &mut self,
        name: &str,
        material: &str,
        look: (Pattern, &str, &str),
        fields: &[(ClothField, &str)],
    ) -> anyhow::Result<()> {
        self.edit(Edit::AddCloth { name: name.into(), material: material.into() })?;
        let id = self.0.cloths.last().map(|c| c.id.clone()).unwrap_or_default();
        let (pattern, ground, figure) = look;
        let look = Look::new(pattern, ground, figure);
        self.edit(Edit::ClothLook { cloth: id.clone(), look })?;
        for (field, value) in fields {
            self.edit(Edit::Cloth { cloth: id.clone(), field: *field, value: (*value).into() })?;
        }
        Ok(())
    }

    /// A part with these fields set one after the other.
    fn part(&mut self, kind: &str, fields: &[(&str, &str)]) -> anyhow::Result<()> {
        self.edit(Edit::AddPart { part: kind.into(), wall: None })?;
        let id = self.0.bag.parts.last().map(|p| p.id).unwrap_or_default();
        fields
            .iter()
            .try_for_each(|(field, value)| self.edit(Edit::Part { id, field: (*field).into(), value: (*value).into() }))
    }

    fn make_up(&mut self, piece: &str, fields: &[(&str, &str)]) -> anyhow::Result<()> {
        fields.iter().try_for_each(|(field, value)| {
            let (piece, field, value) = (piece.into(), (*field).into(), (*value).into());
            self.edit(Edit::MakeUp { piece, field, value })
        })
    }

    fn assign(&mut self, pairs: &[(&str, &str)]) -> anyhow::Result<()> {
        pairs
            .iter()
            .try_for_each(|(part, cloth)| self.edit(Edit::Assign { part: (*part).into(), cloth: (*cloth).into() }))
    }
}

fn harvest_tote() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Harvest tote", System::Inches));
    m.bag(&[
        ("width", "15 1/2"),
        ("height", "13 1/4"),
        ("depth", "5 1/2"),
        ("strap_width", "1 1/4"),
        ("strap_length", "23"),
        ("pocket_width", "8 1/4"),
        ("pocket_height", "6 1/2"),
        ("backing", "clear-of-seams"),
    ])?;
    m.cloth(
        "Bean-flower canvas",
        "canvas",
        (Pattern::Sprig, "#4F6F52", "#C9D8BE"),
        &[(C::Width, "54"), (C::Price, "13.60")],
    )?;
    m.cloth(
        "Oat ticking",
        "cotton",
        (Pattern::Ticking, "#D9C49A", "#A98C57"),
        &[(C::Width, "44"), (C::Price, "8.90")],
    )?;
    m.cloth(
        "Fusible fleece",
        "fleece",
        (Pattern::Fleece, "#EDEAE2", "#9A9488"),
        &[(C::Width, "45"), (C::Price, "7.20")],
    )?;
    m.assign(&[
        ("outer", "bean-flower-canvas"),
        ("straps", "bean-flower-canvas"),
        ("lining", "oat-ticking"),
        ("pocket", "oat-ticking"),
    ])?;
    Ok(m.0)
}

fn seed_swap_tote() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Seed-swap tote", System::Centimetres));
    m.bag(&[
        ("width", "31"),
        ("height", "37"),
        ("depth", "9"),
        ("lining", "smaller"),
        ("strap_width", "2.5"),
        ("strap_length", "66"),
        ("pocket_width", "17"),
        ("pocket_height", "13"),
    ])?;
    m.cloth(
        "Watering-can linen",
        "linen",
        (Pattern::Cans, "#C4D3DC", "#45667C"),
        &[(C::Width, "140"), (C::Price, "16.80"), (C::WashFirst, "yes")],
    )?;
    m.cloth(
        "Seed-dot lawn",
        "cotton",
        (Pattern::Seeds, "#F1E3C2", "#A9572F"),
        &[(C::Width, "112"), (C::Price, "9.50")],
    )?;
    m.assign(&[("lining", "seed-dot-lawn"), ("pocket", "watering-can-linen")])?;
    m.edit(Edit::Lay { field: LayField::Cuts, value: "through".into() })?;
    Ok(m.0)
}

fn bulb_sack() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Bulb sack, unlined", System::Inches));
    m.bag(&[
        ("width", "11"),
        ("height", "12 3/4"),
        ("depth", "6"),
        ("mouth", "double-hem"),
        ("lining", "none"),
        ("boxing", "sewn-across"),
        ("hem_turn", "3/8"),
        ("hem_depth", "1 1/8"),
        ("strap_length", "15"),
        ("strap_inset", "2"),
    ])?;
    m.cloth(
        "Donated potato-sack check",
        "canvas",
        (Pattern::Check, "#E6DAC3", "#7A5A3A"),
        &[(C::Width, "36"), (C::AtHand, "2 yd"), (C::Selvedge, "1/4")],
    )?;
    Ok(m.0)
}

/// A large flower in the middle of each panel, from a print that comes again and again.
fn flower_show_tote() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Flower-show tote", System::Centimetres));
    m.bag(&[("width", "34"), ("height", "36"), ("depth", "6"), ("backing", "none"), ("strap_length", "64")])?;
    m.cloth(
        "Marigold furnishing",
        "canvas",
        (Pattern::Flower, "#EFE3C8", "#C7762B"),
        &[(C::Width, "140"), (C::Price, "14.90"), (C::Repeat, "24"), (C::RepeatWide, "30"), (C::MotifFrom, "22")],
    )?;
    m.cloth(
        "Stem-green lawn",
        "cotton",
        (Pattern::Plain, "#8FA87C", "#5F7A4E"),
        &[(C::Width, "112"), (C::Price, "8.20")],
    )?;
    m.assign(&[
        ("outer", "marigold-furnishing"),
        ("straps", "stem-green-lawn"),
        ("lining", "stem-green-lawn"),
        ("pocket", "stem-green-lawn"),
    ])?;
    m.edit(Edit::PlaceOnPrint { piece: "outer-panel".into(), across: "middle".into(), up: "22".into() })?;
    Ok(m.0)
}

/// Outer, lining, pocket and straps from one cloth, small pieces in the corners cut out of the panels.
fn kneeler_tote() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Kneeler tote", System::Inches));
    m.bag(&[
        ("width", "15 1/2"),
        ("height", "12 1/2"),
        ("depth", "8"),
        ("strap_width", "3/4"),
        ("strap_length", "21"),
        ("pocket_width", "6"),
        ("pocket_height", "3"),
        ("backing", "none"),
    ])?;
    m.cloth(
        "Leaf-mould duck",
        "canvas",
        (Pattern::Seeds, "#8C6A46", "#D9B97F"),
        &[(C::Width, "54"), (C::Price, "11.20")],
    )?;
    m.edit(Edit::Lay { field: LayField::InNotches, value: "yes".into() })?;
    Ok(m.0)
}

/// A round base, a folded casing, two cords.
fn onion_sack() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Onion sack", System::Centimetres));
    m.family("drawstring")?;
    m.bag(&[
        ("base", "round"),
        ("width", "23"),
        ("height", "41"),
        ("casing_depth", "2.5"),
        ("lined", "no"),
        ("cord_tail", "9"),
    ])?;
    m.cloth(
        "Washed flour sacking",
        "linen",
        (Pattern::Ticking, "#E9DEC6", "#5E7C8A"),
        &[(C::Width, "140"), (C::Price, "10.40")],
    )?;
    Ok(m.0)
}

/// Half-round, zipped, backed.
fn seed_packet_pouch() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Seed-packet pouch", System::Inches));
    m.family("pouch")?;
    m.bag(&[
        ("style", "half-round"),
        ("width", "8 1/2"),
        ("height", "5 1/4"),
        ("depth", "2"),
        ("backing", "clear-of-seams"),
        ("key_loop", "yes"),
    ])?;
    m.cloth(
        "Marigold lawn",
        "cotton",
        (Pattern::Sprig, "#D98E32", "#FBE9C8"),
        &[(C::Width, "44"), (C::Price, "9.80")],
    )?;
    m.cloth(
        "Fine ticking",
        "cotton",
        (Pattern::Ticking, "#E4D5B2", "#B69A66"),
        &[(C::Width, "44"), (C::Price, "8.20")],
    )?;
    m.cloth(
        "Woven fusible",
        "interfacing",
        (Pattern::Fleece, "#F2EEE4", "#B5AE9E"),
        &[(C::Width, "20"), (C::Price, "4.60")],
    )?;
    m.assign(&[("lining", "fine-ticking"), ("contrast", "fine-ticking")])?;
    m.make_up("outer-panel", &[("front", "strips"), ("columns", "5")])?;
    Ok(m.0)
}

/// Panels, divided pockets with pleats, a bound mouth, a divider.
fn bottle_caddy() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Bottle caddy", System::Inches));
    m.family("caddy")?;
    m.bag(&[
        ("width", "11 1/2"),
        ("height", "8 1/4"),
        ("depth", "7 1/2"),
        ("pocket_height", "5"),
        ("pocket_divisions", "3"),
        ("pocket_ease", "7/8"),
        ("dividers", "1"),
        ("strap_length", "17"),
    ])?;
    m.cloth(
        "Slate-shed canvas",
        "canvas",
        (Pattern::Plain, "#5B6B7A", "#3E4A56"),
        &[(C::Width, "58"), (C::Price, "12.40")],
    )?;
    m.cloth("Robin check", "cotton", (Pattern::Check, "#F0E2CF", "#B4502F"), &[(C::Width, "44"), (C::Price, "8.70")])?;
    m.cloth(
        "Firm fusible",
        "interfacing",
        (Pattern::Fleece, "#EDE7DA", "#A39B89"),
        &[(C::Width, "20"), (C::Price, "5.90")],
    )?;
    m.assign(&[("lining", "robin-check"), ("pocket", "robin-check"), ("binding", "robin-check")])?;
    Ok(m.0)
}

/// Quilted body, webbing all round, a shoulder strap on rings.
fn kneeler_duffel() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Kneeler duffel", System::Centimetres));
    m.family("duffel")?;
    m.bag(&[("width", "46"), ("height", "27"), ("quilted", "yes"), ("pocket_height", "17"), ("strap_inset", "11")])?;
    m.cloth(
        "Allotment oilcloth",
        "canvas",
        (Pattern::Cans, "#3F6E5A", "#CFE0C8"),
        &[(C::Width, "150"), (C::Price, "15.20")],
    )?;
    m.cloth(
        "Barrow stripe",
        "cotton",
        (Pattern::Ticking, "#E7DBC0", "#6C7F5E"),
        &[(C::Width, "112"), (C::Price, "8.40")],
    )?;
    m.assign(&[("lining", "barrow-stripe"), ("pocket", "barrow-stripe")])?;
    Ok(m.0)
}

/// Squares in two cloths over a base of faux leather.
fn raffle_cross_body() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Raffle cross-body", System::Inches));
    m.family("cross-body")?;
    m.bag(&[
        ("width", "9 1/2"),
        ("height", "8"),
        ("depth", "2 1/2"),
        ("columns", "4"),
        ("rows", "2"),
        ("strap_length", "50"),
    ])?;
    m.cloth(
        "Sweet-pea lawn",
        "cotton",
        (Pattern::Seeds, "#C9A3B6", "#7C4760"),
        &[(C::Width, "44"), (C::Price, "9.60")],
    )?;
    m.cloth("Frost check", "cotton", (Pattern::Check, "#E8ECEA", "#7F98A3"), &[(C::Width, "44"), (C::Price, "9.60")])?;
    m.cloth(
        "Chestnut faux leather",
        "vinyl",
        (Pattern::Plain, "#7A4B32", "#5E3724"),
        &[(C::Width, "54"), (C::Price, "16.00")],
    )?;
    m.cloth(
        "Light fusible",
        "interfacing",
        (Pattern::Fleece, "#F4F0E6", "#BDB6A6"),
        &[(C::Width, "20"), (C::Price, "3.90")],
    )?;
    m.assign(&[
        ("contrast", "frost-check"),
        ("lining", "frost-check"),
        ("base", "chestnut-faux-leather"),
        ("straps", "chestnut-faux-leather"),
    ])?;
    Ok(m.0)
}

/// A list as somebody wrote it down.
fn tool_roll_list() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Tool roll, from a list", System::Inches));
    let list = "Outer: cut 1, 19 1/2 x 13\nLining: cut 1, 19 1/2 x 13\nPocket panel: 1, 19 1/2 x 9 1/4\n\
        2 ties 1 3/4 x 22\nFlap: 1, 19 1/2 x 5 1/2 lining\nFleece: 1, 19 x 12 1/2";
    m.edit(Edit::Rows { rows: read_text(list, System::Inches).rows, bought: vec![] })?;
    let ties = 3;
    m.edit(Edit::Row { row: ties, field: RowField::Fold, value: "folded-in-four".into() })?;
    m.cloth(
        "Rain-butt canvas",
        "canvas",
        (Pattern::Plain, "#4B5D73", "#34445A"),
        &[(C::Width, "54"), (C::Price, "12.00")],
    )?;
    m.cloth(
        "Thrift seersucker",
        "cotton",
        (Pattern::Ticking, "#EFE3E3", "#B07A7A"),
        &[(C::Width, "44"), (C::Price, "7.80")],
    )?;
    m.cloth(
        "Offered fleece",
        "fleece",
        (Pattern::Fleece, "#EDEAE2", "#9A9488"),
        &[(C::Width, "45"), (C::AtHand, "1 yd")],
    )?;
    m.assign(&[("lining", "thrift-seersucker"), ("pocket", "thrift-seersucker")])?;
    Ok(m.0)
}

/// Pockets outside and in, of five kinds, each on its wall.
/// As far as it is sewn: so many steps ticked off.
fn sewn(m: &mut Maker, steps: usize) -> anyhow::Result<()> {
    let draft = m.0.plan().map_err(|p| anyhow!("the demo does not hold: {p:?}"))?.draft;
    draft.steps.iter().take(steps).try_for_each(|s| m.edit(Edit::Made { step: s.key.to_string(), done: true }))
}

fn potting_bench_tote() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Potting-bench tote", System::Inches));
    m.bag(&[
        ("width", "16"),
        ("height", "12 1/2"),
        ("depth", "5"),
        ("pocket", "no"),
        ("strap_width", "1 1/4"),
        ("strap_length", "22"),
    ])?;
    m.part(
        "pocket",
        &[
            ("make", "bound"),
            ("width", "10 1/2"),
            ("height", "6 1/4"),
            ("below", "3"),
            ("divisions", "1 1/2, 3 1/2, 5 1/2"),
            ("name", "Dibber pocket"),
        ],
    )?;
    m.part(
        "pocket",
        &[
            ("wall", "back"),
            ("make", "hemmed"),
            ("place", "full-width"),
            ("foot", "base-seam"),
            ("height", "7"),
            ("cloth", "contrast"),
        ],
    )?;
    m.part(
        "pocket",
        &[("wall", "inside-back"), ("make", "zip"), ("width", "8"), ("height", "5 1/2"), ("below", "2 1/2")],
    )?;
    m.part(
        "pocket",
        &[
            ("wall", "inside-front"),
            ("make", "lined"),
            ("width", "7"),
            ("height", "5"),
            ("flap", "yes"),
            ("flap_depth", "1 3/4"),
        ],
    )?;
    m.part("pocket", &[("make", "sleeve"), ("wall", "right"), ("width", "4"), ("round", "2 3/4"), ("height", "6")])?;
    m.part("tab", &[("what", "key-loop"), ("wall", "inside-front"), ("below", "1 1/4"), ("length", "3 1/2")])?;
    m.cloth(
        "Bench-top canvas",
        "canvas",
        (Pattern::Plain, "#6F7F5C", "#55633F"),
        &[(C::Width, "58"), (C::Price, "12.90")],
    )?;
    m.cloth(
        "Seed-tray check",
        "cotton",
        (Pattern::Check, "#F0E4CC", "#8C5A3C"),
        &[(C::Width, "44"), (C::Price, "8.60")],
    )?;
    m.cloth(
        "Twine ticking",
        "cotton",
        (Pattern::Ticking, "#E3D3AE", "#9B7F4A"),
        &[(C::Width, "44"), (C::Price, "8.20")],
    )?;
    m.assign(&[
        ("lining", "twine-ticking"),
        ("pocket", "seed-tray-check"),
        ("contrast", "seed-tray-check"),
        ("binding", "twine-ticking"),
    ])?;
    sewn(&mut m, 7)?;
    m.edit(Edit::Notes { text: "Walking foot over the corners.\nThe dibber pocket could be an inch deeper.".into() })?;
    Ok(m.0)
}

/// Panels in three bands, the middle one pieced in its turn; backed piece by piece.
fn sowing_day_tote() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Sowing-day tote", System::Centimetres));
    m.bag(&[("width", "36"), ("height", "34"), ("depth", "10"), ("strap_length", "62")])?;
    m.make_up(
        "outer-panel",
        &[
            ("bands", "8, 12"),
            ("band_cloths", "outer, contrast, base"),
            ("backed", "fusible-fleece"),
            ("backed_clear", "1"),
        ],
    )?;
    m.make_up("outer-panel-band-2", &[("front", "strips"), ("columns", "6")])?;
    m.make_up("strap", &[("backed", "woven"), ("backed_reach", "full")])?;
    m.part(
        "decoration",
        &[("technique", "applique"), ("width", "7"), ("height", "7"), ("below", "24"), ("moment", "after-backing")],
    )?;
    m.cloth(
        "Frost-cloth linen",
        "linen",
        (Pattern::Plain, "#D9DFD3", "#9FAE9A"),
        &[(C::Width, "140"), (C::Price, "15.40")],
    )?;
    m.cloth(
        "Beetroot lawn",
        "cotton",
        (Pattern::Seeds, "#8E3B52", "#E7C3C0"),
        &[(C::Width, "112"), (C::Price, "9.80")],
    )?;
    m.cloth(
        "Spade-handle canvas",
        "canvas",
        (Pattern::Plain, "#7C5B3E", "#5A402A"),
        &[(C::Width, "150"), (C::Price, "13.20")],
    )?;
    m.cloth("Soft fleece", "fleece", (Pattern::Fleece, "#EFEBE1", "#A49C8C"), &[(C::Width, "90"), (C::Price, "7.60")])?;
    m.cloth(
        "Woven fusible, light",
        "interfacing",
        (Pattern::Fleece, "#F4F0E6", "#BDB6A6"),
        &[(C::Width, "112"), (C::Price, "4.90")],
    )?;
    m.assign(&[
        ("contrast", "beetroot-lawn"),
        ("lining", "beetroot-lawn"),
        ("pocket", "beetroot-lawn"),
        ("base", "spade-handle-canvas"),
        ("straps", "spade-handle-canvas"),
    ])?;
    Ok(m.0)
}

/// Either side out, its casings caught in the top seam, the cords cut from cloth.
fn bean_sack() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Two-way bean sack", System::Inches));
    m.family("drawstring")?;
    m.bag(&[
        ("width", "9"),
        ("height", "12"),
        ("base", "boxed"),
        ("depth", "3"),
        ("casing", "in-seam"),
        ("casing_depth", "1"),
        ("clearance", "1/2"),
        ("hem_turn", "1/4"),
        ("reversible", "yes"),
        ("cord_of_cloth", "yes"),
        ("cord_width", "3/8"),
        ("cord_tail", "6"),
    ])?;
    m.part("tab", &[("what", "loop"), ("width", "3/8"), ("length", "2"), ("below", "2")])?;
    m.cloth(
        "Runner-bean lawn",
        "cotton",
        (Pattern::Sprig, "#A9483A", "#F3DCC4"),
        &[(C::Width, "44"), (C::Price, "9.40")],
    )?;
    m.cloth(
        "Pea-stick stripe",
        "cotton",
        (Pattern::Ticking, "#DDE3C8", "#748450"),
        &[(C::Width, "44"), (C::Price, "8.80")],
    )?;
    m.assign(&[("lining", "pea-stick-stripe"), ("contrast", "pea-stick-stripe"), ("straps", "pea-stick-stripe")])?;
    Ok(m.0)
}

/// All of it from what lay on the swap table: two fat quarters and a short length.
fn swap_table_pouch() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Swap-table pouch", System::Inches));
    m.family("pouch")?;
    m.bag(&[("style", "boxed"), ("base", "fold"), ("width", "9"), ("height", "6"), ("depth", "3")])?;
    m.part("pocket", &[("make", "hemmed"), ("wall", "front"), ("width", "5"), ("height", "3 1/2")])?;
    m.cloth(
        "Radish dot",
        "cotton",
        (Pattern::Seeds, "#B4474B", "#F6E3D4"),
        &[(C::Width, "44"), (C::Price, "9.20"), (C::AtHand, "2 fat quarters")],
    )?;
    m.cloth(
        "Leek stripe",
        "cotton",
        (Pattern::Ticking, "#E4E8D2", "#6E8A62"),
        &[(C::Width, "44"), (C::Price, "8.40"), (C::AtHand, "half a yard")],
    )?;
    m.assign(&[("lining", "leek-stripe")])?;
    Ok(m.0)
}

/// A place so many eighths of an inch across and up.
fn eighths((x, y): (i64, i64)) -> Point {
    Point::new(Length::inches(x, 8), Length::inches(y, 8))
}

/// From the blue crate alone: four scraps of two cloths, one of them stained, and nothing bought.
fn crate_pouch() -> anyhow::Result<Project> {
    let mut m = Maker(Project::new("Blue-crate pouch", System::Inches));
    m.family("pouch")?;
    m.bag(&[("width", "8"), ("height", "5 1/2")])?;
    m.cloth("Seed-husk dot", "cotton", (Pattern::Seeds, "#F1DDB5", "#B85C3A"), &[])?;
    m.cloth("Rhubarb stripe", "cotton", (Pattern::Ticking, "#F2E3DC", "#A5525A"), &[])?;
    m.assign(&[("lining", "rhubarb-stripe")])?;
    let side = |&(from, to, length): &(usize, usize, &str)| TypedDistance { from, to, length: length.into() };
    let mut draw = |cloth: &str, corners: &[(i64, i64)], sides: &[(usize, usize, &str)], stain: &[(i64, i64)]| {
        let flaws = match stain {
            [] => vec![],
            stain => vec![Flaw { kind: FlawKind::Stain, corners: stain.iter().copied().map(eighths).collect() }],
        };
        let draft = ScrapDraft {
            corners: corners.iter().copied().map(eighths).collect(),
            measured: sides.iter().map(side).collect(),
            flaws,
            ..ScrapDraft::default()
        };
        m.edit(Edit::DrawScrap { cloth: cloth.into(), label: None, count: 1, draft })
    };
    let sides = [(0, 1, "11 1/2"), (1, 2, "9 1/4"), (2, 3, "12 1/4"), (0, 3, "8 1/2"), (0, 2, "15")];
    let stain = [(74, 50), (84, 50), (84, 60), (74, 60)];
    draw("seed-husk-dot", &[(0, 0), (92, 0), (96, 74), (0, 68)], &sides, &stain)?;
    draw("seed-husk-dot", &[(6, 0), (76, 10), (94, 46), (82, 88), (10, 80), (0, 34)], &[], &[])?;
    draw("rhubarb-stripe", &[(0, 0), (110, 4), (98, 76), (12, 70)], &[], &[])?;
    draw("rhubarb-stripe", &[(0, 6), (60, 0), (100, 22), (92, 84), (4, 72)], &[], &[])?;
    Ok(m.0)
}

/// Short of its lining: what there is of it is too little, and the ways out are told.
fn windfall_tote() -> anyhow::Result<Project> {
    use ClothField as C;
    let mut m = Maker(Project::new("Windfall tote", System::Centimetres));
    m.bag(&[("width", "36"), ("height", "34"), ("depth", "10")])?;
    m.cloth(
        "Orchard canvas",
        "canvas",
        (Pattern::Plain, "#8A7A4E", "#66582F"),
        &[(C::Width, "140"), (C::Price, "14.20"), (C::AtHand, "1.4 m")],
    )?;
    m.cloth(
        "Plum lawn",
        "cotton",
        (Pattern::Seeds, "#6B4A6E", "#D9C3D8"),
        &[(C::Width, "110"), (C::Price, "9.60"), (C::AtHand, "30 cm, 45 x 55")],
    )?;
    m.assign(&[("lining", "plum-lawn"), ("pocket", "plum-lawn")])?;
    Ok(m.0)
}
