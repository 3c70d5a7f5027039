//! The demo: four projects of the Tarn Street Allotments, a society of plot holders who sew from donated cloth.
//! Names and sizes are invented.

use anyhow::anyhow;
use bofta_core::measure::System;
use bofta_core::project::{BagField, ClothField, Edit, LayField, Look, Pattern, Project};
use bofta_store::Store;

/// Fills an empty store.
pub fn fill(store: &Store) -> anyhow::Result<()> {
    let projects = [
        ("kneeler-tote", kneeler_tote()?),
        ("bulb-sack", bulb_sack()?),
        ("seed-swap-tote", seed_swap_tote()?),
        ("harvest-tote", harvest_tote()?),
    ];
    for (id, project) in &projects {
        store.create(id, project)?;
    }
    for (_, project) in &projects {
        for cloth in &project.cloths {
            store.keep_cloth(cloth)?;
        }
    }
    Ok(())
}

struct Maker(Project);

impl Maker {
    fn edit(&mut self, edit: Edit) -> anyhow::Result<()> {
        let (next, _) = self.0.edited(&edit).map_err(|p| anyhow!("the demo does not hold: {p:?}"))?;
        self.0 = next;
        Ok(())
    }

    fn bag(&mut self, fields: &[(BagField, &str)]) -> anyhow::Result<()> {
        fields.iter().try_for_each(|(field, value)| self.edit(Edit::Bag { field: *field, value: (*value).into() }))
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
        let look = Look { pattern, ground: ground.into(), figure: figure.into() };
        self.edit(Edit::ClothLook { cloth: id.clone(), look })?;
        for (field, value) in fields {
            self.edit(Edit::Cloth { cloth: id.clone(), field: *field, value: (*value).into() })?;
        }
        Ok(())
    }

    fn assign(&mut self, pairs: &[(&str, &str)]) -> anyhow::Result<()> {
        pairs
            .iter()
            .try_for_each(|(part, cloth)| self.edit(Edit::Assign { part: (*part).into(), cloth: (*cloth).into() }))
    }
}

fn harvest_tote() -> anyhow::Result<Project> {
    use BagField as B;
    use ClothField as C;
    let mut m = Maker(Project::new("Harvest tote", System::Inches));
    m.bag(&[
        (B::Width, "15 1/2"),
        (B::Height, "13 1/4"),
        (B::Depth, "5 1/2"),
        (B::StrapWidth, "1 1/4"),
        (B::StrapLength, "23"),
        (B::PocketWidth, "8 1/4"),
        (B::PocketHeight, "6 1/2"),
        (B::Backing, "clear-of-seams"),
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
    use BagField as B;
    use ClothField as C;
    let mut m = Maker(Project::new("Seed-swap tote", System::Centimetres));
    m.bag(&[
        (B::Width, "31"),
        (B::Height, "37"),
        (B::Depth, "9"),
        (B::Lining, "smaller"),
        (B::StrapWidth, "2.5"),
        (B::StrapLength, "66"),
        (B::PocketWidth, "17"),
        (B::PocketHeight, "13"),
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
    use BagField as B;
    use ClothField as C;
    let mut m = Maker(Project::new("Bulb sack, unlined", System::Inches));
    m.bag(&[
        (B::Width, "11"),
        (B::Height, "12 3/4"),
        (B::Depth, "6"),
        (B::Mouth, "double-hem"),
        (B::Lining, "none"),
        (B::Boxing, "sewn-across"),
        (B::HemTurn, "3/8"),
        (B::HemDepth, "1 1/8"),
        (B::StrapLength, "15"),
        (B::StrapInset, "2"),
    ])?;
    m.cloth(
        "Donated potato-sack check",
        "canvas",
        (Pattern::Check, "#E6DAC3", "#7A5A3A"),
        &[(C::Width, "36"), (C::Owned, "2 yd"), (C::Selvedge, "1/4")],
    )?;
    Ok(m.0)
}

/// Outer, lining, pocket and straps from one cloth, small pieces in the corners cut out of the panels.
fn kneeler_tote() -> anyhow::Result<Project> {
    use BagField as B;
    use ClothField as C;
    let mut m = Maker(Project::new("Kneeler tote", System::Inches));
    m.bag(&[
        (B::Width, "15 1/2"),
        (B::Height, "12 1/2"),
        (B::Depth, "8"),
        (B::StrapWidth, "3/4"),
        (B::StrapLength, "21"),
        (B::PocketWidth, "6"),
        (B::PocketHeight, "3"),
        (B::Backing, "none"),
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
