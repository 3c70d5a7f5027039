//! Drawings are to scale and say what they show.
#![allow(missing_docs)]

use bofta_core::bag::{Family, Looks, Row, Slot};
use bofta_core::buying::washed;
use bofta_core::cloth::{AtHand, HandForm, Material, PrintUp};
use bofta_core::cutting::{Step, cut_list};
use bofta_core::lay::{Budget, Job, Lay, Silent, Stop, solve};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Part;
use bofta_core::project::{ClothField, Edit, Look, Pattern, Planned, Project, ProjectCloth, Swatch};
use bofta_formats::{draw, sheet, shopping_list};
use rstest::rstest;
use svg2pdf::usvg::roxmltree::{Document, Node};

fn made(system: System, edits: &[Edit]) -> (Project, Planned, Job, Lay) {
    let add = Edit::AddCloth { name: "Moss canvas".into(), material: "canvas".into() };
    let start = Project::new("Tote", system);
    let project = std::iter::once(&add).chain(edits).fold(start, |p, e| p.edited(e).expect("a sound edit").0);
    let planned = project.plan().expect("drafts");
    let job = planned.job.clone().expect("a job");
    let lay = solve(&job, Budget::iterations(200), &mut Silent).expect("laid");
    (project, planned, job, lay)
}

fn number(node: Node<'_, '_>, name: &str) -> f64 {
    node.attribute(name).and_then(|v| v.parse().ok()).unwrap_or(f64::NAN)
}

/// The corners of a polygon, of a path of straight lines or of a rectangle.
fn outline(node: Node<'_, '_>) -> Option<Vec<(f64, f64)>> {
    if node.has_tag_name("rect") {
        let (x, y, w, h) = (number(node, "x"), number(node, "y"), number(node, "width"), number(node, "height"));
        return Some(vec![(x, y), (x + w, y + h)]);
    }
    let text = node.attribute("points").or_else(|| node.attribute("d"))?;
    let numbers: Vec<f64> =
        text.split(|c: char| !(c.is_ascii_digit() || c == '.' || c == '-')).filter_map(|t| t.parse().ok()).collect();
    Some(numbers.chunks_exact(2).map(|c| (c[0], c[1])).collect())
}

/// Width and height of the first outline in each group of a piece.
fn drawn_pieces(svg: &str) -> Vec<(String, f64, f64)> {
    let document = Document::parse(svg).expect("well formed");
    document
        .descendants()
        .filter(|n| n.has_tag_name("g") && n.has_attribute("data-piece"))
        .map(|g| {
            let outline = g.children().find_map(|n| outline(n)).expect("an outline");
            let span = |of: fn(&(f64, f64)) -> f64| {
                let all = || outline.iter().map(of);
                all().fold(f64::NEG_INFINITY, f64::max) - all().fold(f64::INFINITY, f64::min)
            };
            (g.attribute("data-piece").unwrap_or_default().to_owned(), span(|p| p.0), span(|p| p.1))
        })
        .collect()
}

#[rstest]
fn every_piece_of_a_lay_is_drawn_to_one_scale(#[values(System::Inches, System::Centimetres)] system: System) {
    let (project, _, job, lay) = made(system, &[]);
    let drawing = draw::cloth_lay(&project, &job, &lay.cloths[0], 960.0, 440.0, "t").expect("drawn");
    let drawn = drawn_pieces(&drawing.to_svg());
    assert_eq!(drawn.len(), lay.cloths[0].placements.len());
    let mut scale = None;
    for (p, (id, w, h)) in lay.cloths[0].placements.iter().zip(&drawn) {
        assert_eq!(&p.piece, id);
        let (across, along) = job.piece(id).expect("known").outline.extent(p.turn, p.mirrored);
        let scale = *scale.get_or_insert(w / across.0 as f64);
        // Drawn to a hundredth of a pixel.
        assert!((w - across.0 as f64 * scale).abs() < 0.05 && (h - along.0 as f64 * scale).abs() < 0.05, "{id}");
    }
}

#[test]
fn a_lay_says_its_lengths_and_widths() {
    let (project, _, job, lay) = made(System::Inches, &[]);
    let drawing = draw::cloth_lay(&project, &job, &lay.cloths[0], 960.0, 440.0, "t").expect("drawn");
    let bought = bofta_core::measure::show_bought(lay.cloths[0].buy_length, System::Inches);
    assert!(drawing.body.contains(&format!(">{bought}<")), "the bought length stands at its line");
    assert!(drawing.body.contains("54 in wide · 53 usable"));
    assert!(drawing.body.contains("Outer panel"));
}

/// A railroaded print is drawn with its up at the right, a plain one with its up along the cloth.
#[rstest]
#[case("length", "rotate(0)")]
#[case("across", "rotate(90)")]
fn prints_are_drawn_the_way_they_run(#[case] up: &str, #[case] turned: &str) {
    let look = Look::new(Pattern::Sprig, "#4F6F52", "#C9D8BE");
    let cloth = || "moss-canvas".to_owned();
    let (project, _, job, lay) = made(
        System::Inches,
        &[
            Edit::ClothLook { cloth: cloth(), look },
            Edit::Cloth { cloth: cloth(), field: ClothField::Up, value: up.into() },
        ],
    );
    let drawing = draw::cloth_lay(&project, &job, &lay.cloths[0], 960.0, 440.0, "t").expect("drawn");
    let document_text = drawing.to_svg();
    let document = Document::parse(&document_text).expect("well formed");
    let pattern = document.descendants().find(|n| n.has_tag_name("pattern")).expect("a pattern");
    assert!(pattern.attribute("patternTransform").is_some_and(|t| t.starts_with(turned)));
}

/// How tall a print's tile is drawn, in pixels.
fn tile(drawing: &draw::Drawing) -> f64 {
    let text = drawing.to_svg();
    let document = Document::parse(&text).expect("well formed");
    let pattern = document.descendants().find(|n| n.has_tag_name("pattern")).expect("a pattern");
    let turned = pattern.attribute("patternTransform").expect("it is turned and scaled");
    let by = turned.split_once("scale(").expect("scaled").1.trim_end_matches(')');
    number(pattern, "height") * by.parse::<f64>().expect("a figure")
}

/// A print is as large as it was measured, at whatever scale it is drawn: on the table, on the lay, on a piece.
#[test]
fn a_print_is_drawn_as_large_as_it_is() {
    let field = |field, value: &str| Edit::Cloth { cloth: "moss-canvas".into(), field, value: value.into() };
    let look = Look::new(Pattern::Sprig, "#4F6F52", "#C9D8BE");
    let edits = [
        Edit::ClothLook { cloth: "moss-canvas".into(), look },
        field(ClothField::Repeat, "6"),
        field(ClothField::AtHand, "2 yd"),
    ];
    let (project, planned, job, lay) = made(System::Inches, &edits);
    let cloth = &project.cloths[0];
    let inch = Length::INCH.0 as f64;
    for scale in [4.0 / inch, 9.5 / inch, 31.0 / inch] {
        let drawing = draw::at_hand(cloth, &cloth.at_hand[0], ("k", Ruler::Eighth), scale);
        assert!((tile(&drawing) - 6.0 * inch * scale).abs() < 0.01);
        let drawing = draw::piece(
            &planned.draft.pieces[0],
            Some(cloth),
            Ruler::Eighth,
            scale,
            draw::Shown { marks: true, ..draw::Shown::default() },
        );
        assert!((tile(&drawing) - 6.0 * inch * scale).abs() < 0.01);
    }
    // 54 in of cloth between the two ends of the line below it.
    let drawing = draw::cloth_lay(&project, &job, &lay.cloths[0], 960.0, 440.0, "t").expect("drawn");
    let text = drawing.to_svg();
    let document = Document::parse(&text).expect("well formed");
    let widest = document
        .descendants()
        .filter(|n| n.has_tag_name("rect") && n.attribute("fill").is_some_and(|f| f.starts_with("url")))
        .map(|n| number(n, "width"))
        .fold(0.0, f64::max);
    assert!((tile(&drawing) / widest - 6.0 / 54.0).abs() < 1e-3, "{} of {widest}", tile(&drawing));
    // Nobody measured it: a usual size, the same at twice the scale twice as large.
    let usual = made(System::Inches, &[field(ClothField::AtHand, "2 yd")]).0;
    let at =
        |scale: f64| tile(&draw::at_hand(&usual.cloths[0], &usual.cloths[0].at_hand[0], ("k", Ruler::Eighth), scale));
    assert!((at(80.0 / inch) / at(40.0 / inch) - 2.0).abs() < 1e-3);
}

/// The lit line of the ruler stands where its figure says, measured against the drawn whole lines.
#[rstest]
#[case(Length::inches(43, 2), Ruler::Eighth)]
#[case(Length::inches(1, 2), Ruler::Eighth)]
#[case(Length::inches(105, 16), Ruler::Sixteenth)]
#[case(Length::MILLIMETRE * 435, Ruler::Millimetre)]
#[case(Length::MILLIMETRE * 735, Ruler::HalfCentimetre)]
fn the_ruler_shows_the_reading_where_it_is(#[case] reading: Length, #[case] ruler: Ruler) {
    let drawing = draw::ruler_strip(reading, ruler, "from the left edge", 760.0);
    let text = drawing.to_svg();
    let document = Document::parse(&text).expect("well formed");
    let lines: Vec<Node<'_, '_>> = document.descendants().filter(|n| n.has_tag_name("line")).collect();
    let lit = lines.iter().find(|n| n.attribute("stroke") == Some(draw::ink::MADDER)).expect("a lit line");
    // Whole units are labelled just right of their lines.
    let labelled: Vec<(f64, f64)> = document
        .descendants()
        .filter(|n| n.has_tag_name("text"))
        .filter_map(|n| Some((n.text()?.parse().ok()?, number(n, "x") - 6.0)))
        .collect();
    let [(a, xa), (b, xb)] = labelled[..2] else { panic!("two whole units are in sight") };
    let unit = (xb - xa) / (b - a);
    let shown = a + (number(*lit, "x1") - xa) / unit;
    assert!((shown - reading.in_units(ruler.system())).abs() < 0.01, "{shown}");
    assert!(text.contains(&ruler.show(reading).text));
}

#[test]
fn anchors_lie_on_the_bag_and_pull_along_their_lines() {
    let (project, planned, ..) = made(System::Inches, &[]);
    let bag = draw::bag(&project, &planned.draft, 960.0, 400.0);
    for a in &bag.anchors {
        for (x, y) in [(a.x1, a.y1), (a.x2, a.y2)] {
            assert!((0.0..=960.0).contains(&x) && (0.0..=400.0).contains(&y), "{a:?}");
        }
        let size = match a.field {
            "width" => project.bag.length("width").expect("a size"),
            "height" => project.bag.length("height").expect("a size"),
            _ => project.bag.length("depth").expect("a size"),
        };
        // One unit's pull, as often as the size has units, runs along the drawn line.
        let units = size.in_units(System::Inches);
        let (dx, dy) = (a.per_unit.0 * units, a.per_unit.1 * units);
        assert!((a.x2 - a.x1 - dx).abs() < 0.5 && (a.y2 - a.y1 - dy).abs() < 0.5, "{a:?}");
    }
}

/// Extreme bags stay inside the drawing.
#[rstest]
#[case("100", "8", "2")]
#[case("8", "100", "8")]
#[case("12", "12", "12")]
fn any_bag_fits_its_drawing(#[case] width: &str, #[case] height: &str, #[case] depth: &str) {
    let set = |field: &str, value: &str| Edit::Bag { field: field.into(), value: value.into() };
    let edits = [
        set("pocket", "no"),
        set("straps", "no"),
        set("depth", "2"),
        set("width", width),
        set("height", height),
        set("depth", depth),
    ];
    let project = edits.iter().fold(Project::new("Tote", System::Inches), |p, e| p.edited(e).expect("a sound edit").0);
    let planned = project.plan().expect("drafts");
    let bag = draw::bag(&project, &planned.draft, 960.0, 400.0);
    for a in &bag.anchors {
        assert!(a.x2 <= 960.0 && a.x1 >= 0.0 && a.y2 >= 0.0 && a.y1 <= 400.0, "{a:?}");
    }
}

/// Every piece, every cut and the whole shopping list stand on the sheet.
#[test]
fn the_sheet_leaves_nothing_out() {
    let set = |field: &str, value: &str| Edit::Bag { field: field.into(), value: value.into() };
    let (project, planned, job, lay) = made(System::Inches, &[set("mouth", "double-hem")]);
    let pages = sheet::cut_sheet_pages(&project, &planned, &job, &lay, &Stop::new());
    let all: String = pages.iter().map(|p| p.body.as_str()).collect();
    for piece in &planned.draft.pieces {
        let size =
            format!("{} × {}", project.ruler.show(piece.width.size).text, project.ruler.show(piece.height.size).text);
        assert!(all.contains(&*piece.name) && all.contains(&size), "{}", piece.name);
        for mark in &piece.marks {
            assert!(all.contains(&*mark.name), "{}", mark.name);
        }
    }
    let boxes = all.matches("<rect").count();
    let straight = cut_list(&job, &lay.cloths, &[], &[]).len();
    assert!(boxes > straight, "a box to tick for each of {straight} cuts");
    let corners = cut_list(&job, &lay.cloths, &planned.draft.pieces, &[])
        .iter()
        .filter(|s| matches!(s, Step::Corners(_)))
        .count();
    assert_eq!(all.matches("Cut both lower").count(), corners);
    assert!(all.contains("guard at every pause"), "the caution is where the cuts are");
    for (i, page) in pages.iter().enumerate() {
        assert!(page.body.contains(&format!("{} of {}", i + 1, pages.len())));
    }
}

/// Every step, every width of a seam and what was written down stand on the making sheet; what is ticked off says so.
#[test]
fn the_making_sheet_leaves_nothing_out() {
    let note = Edit::Notes { text: "Walk the foot.\nNeedle 90".into() };
    let pocket = Edit::AddPart { part: "pocket".into(), wall: Some("front".into()) };
    let (project, planned, ..) =
        made(System::Inches, &[pocket, note, Edit::Made { step: "straps".into(), done: true }]);
    let pages = sheet::making_sheet_pages(&project, &planned, None);
    let all: String = pages.iter().map(|p| p.body.as_str()).collect();
    let making = project.making(&planned.draft);
    assert!(making.len() > 5);
    for now in &making {
        let longest = now.step.text.split_whitespace().max_by_key(|w| w.len()).unwrap_or_default();
        assert!(all.contains(longest) && all.contains(now.step.phase.name()), "{}", now.step.text);
        for told in now.seams.iter().filter_map(|s| s.told(&planned.draft, project.ruler)) {
            assert!(all.contains(&format!("sewn {}", told.seam)) && all.contains(&told.length), "{told:?}");
        }
    }
    assert!(all.contains("Needle 90") && all.contains("Walk the foot."));
    assert_eq!(all.matches(">done<").count(), 1);
    assert!(all.matches("<rect").count() >= making.len(), "a box to tick for each step");
}

/// What is bought by the length, what comes off a block, and patches stand on the sheet too.
#[test]
fn the_sheet_knows_reels_blocks_and_patches() {
    let set = |field: &str, value: &str| Edit::Bag { field: field.into(), value: value.into() };
    let stiff = Edit::AddCloth { name: "Stiff".into(), material: "interfacing".into() };
    let sheet_of = |edits: &[Edit]| {
        let (project, planned, job, lay) = made(System::Inches, edits);
        let pages = sheet::cut_sheet_pages(&project, &planned, &job, &lay, &Stop::new());
        let steps = cut_list(&job, &lay.cloths, &planned.draft.pieces, &planned.blocks);
        (pages.iter().map(|p| p.body.clone()).collect::<String>(), steps)
    };
    let duffel = Edit::Family { family: "duffel".into() };
    let (all, _) = sheet_of(std::slice::from_ref(&duffel));
    assert!(all.contains("Webbing to buy"), "the reel is a line of its own");
    let kind = bofta_core::bag::GoodKind::Webbing;
    let width = Some(Length::inches(3, 2));
    let hand = Edit::LengthsAtHand { kind, width, lengths: "500".into() };
    let (all, _) = sheet_of(&[duffel, hand]);
    assert!(all.contains("from 500:") && all.contains("nothing"), "what is at hand is used, nothing is bought");
    let (all, steps) = sheet_of(&[stiff, set("backing_cloth", "interfacing"), set("backing", "block")]);
    let block = steps.iter().filter(|s| matches!(s, Step::Block { .. })).count();
    assert!(block > 0 && all.contains("Fuse it to its backing"));
    let make = |field: &str, value: &str| Edit::MakeUp {
        piece: "lining-panel".into(),
        field: field.into(),
        value: value.into(),
    };
    let (all, _) = sheet_of(&[make("front", "grid")]);
    assert!(all.contains("Patch, lining panel"));
    assert!(all.contains("pieced from") && all.contains("then trimmed to this"), "a pieced panel says that it is");
}

/// However many cuts there are, none spills alone on a page, and the caution stands where the last ones are.
#[test]
fn no_cut_stands_alone_on_a_page() {
    let mut turned = 0;
    for n in 8..40_i64 {
        let row = |i: i64| Row::new(format!("Piece {i}"), Part::Outer, 1, Length::INCH * 3, Length::inches(60 + i, 8));
        let rows = Edit::Rows { rows: (0..n).map(row).collect(), bought: vec![] };
        let (project, planned, job, lay) = made(System::Inches, &[rows]);
        let pages = sheet::cut_sheet_pages(&project, &planned, &job, &lay, &Stop::new());
        let ticks: Vec<usize> = pages.iter().map(|p| p.body.matches(r#"width="10" height="10""#).count()).collect();
        let cuts = cut_list(&job, &lay.cloths, &planned.draft.pieces, &[]).len();
        assert_eq!(ticks.iter().sum::<usize>(), cuts);
        assert!(!ticks.contains(&1), "{n} pieces: {ticks:?}");
        turned += usize::from(ticks.iter().filter(|t| **t > 0).count() > 1);
        let last = pages.iter().zip(&ticks).rfind(|(_, t)| **t > 0).expect("a page of cuts").0;
        assert!(last.body.contains("guard at every pause"));
    }
    assert!(turned > 10, "the cuts of {turned} lists go over a page");
}

/// Cloth that is washed first is bought at one size and laid at another, and both are told.
#[test]
fn washed_and_unwashed_sizes_are_told_apart() {
    let wash = Edit::Cloth { cloth: "moss-canvas".into(), field: ClothField::WashFirst, value: "yes".into() };
    let (project, planned, job, lay) = made(System::Inches, &[wash]);
    let cloth = project.cloth("moss-canvas").expect("there");
    let bought = lay.cloths.iter().find(|c| c.cloth == cloth.id).expect("laid").buy_length;
    let told = washed(&cloth.roll(), bought, project.ruler).expect("it shrinks");
    // 54 in less 3 % are 52.38, down to an eighth.
    assert!(told.starts_with("washed before cutting: a width of 54 in comes out at 52⅜ in, "), "{told}");
    assert!(shopping_list(&project, &planned.draft, &job, &lay, None).contains(&told));
    let pages = sheet::cut_sheet_pages(&project, &planned, &job, &lay, &Stop::new());
    assert!(pages[0].body.contains("washed before cutting: a width of 54 in comes out"));
    let dry = ProjectCloth { wash_first: false, ..cloth.clone() };
    assert_eq!(washed(&dry.roll(), bought, project.ruler), None);
}

/// The seams of a pieced panel are drawn within its outline: one line between any two columns and any two rows.
#[rstest]
#[case("grid", 3 + 3)]
#[case("strips", 3)]
#[case("triangles", 3 + 3 + 16)]
#[case("crazy", 10)]
fn a_pieced_panel_shows_its_seams(#[case] front: &str, #[case] seams: usize) {
    let make = |field: &str, value: &str| Edit::MakeUp {
        piece: "outer-panel".into(),
        field: field.into(),
        value: value.into(),
    };
    let (project, planned, ..) = made(System::Inches, &[make("front", front)]);
    let panel = planned.draft.piece("outer-panel").expect("a panel");
    let plain = draw::piece(panel, project.cloth_of(panel.part), Ruler::Eighth, 1e-5, draw::Shown::default());
    let drawn = Document::parse(&plain.to_svg()).map(|d| {
        let clipped = d
            .descendants()
            .find(|n| n.has_attribute("clip-path"))
            .map(|g| g.children().filter(|n| n.has_tag_name("line")).count());
        (clipped, d.descendants().filter(|n| n.has_tag_name("clipPath")).count())
    });
    // Each seam is a light line and a dotted one over it.
    assert_eq!(drawn.expect("well formed"), (Some(seams * 2), 1));
}

#[test]
fn text_is_measured_by_its_own_face() {
    let wide = draw::text_width("WWW", draw::Face::Text, 16.0);
    let narrow = draw::text_width("iii", draw::Face::Text, 16.0);
    assert!(wide > narrow * 2.0);
    assert!(
        draw::text_width("22½", draw::Face::Heading, 32.0) > draw::text_width("22½", draw::Face::Heading, 16.0) * 1.9
    );
    assert_eq!(draw::text_width("", draw::Face::Bold, 16.0), 0.0);
}

/// Every wall of every body is drawn with each kind of part on it, in both systems: each part is on its wall once, within the
/// drawing, and what moves it says where it is now.
#[test]
fn every_wall_is_drawn_with_its_parts() {
    let (mut drawn, mut moved) = (0, 0);
    for family in Family::ALL.iter().filter(|f| **f != Family::CutList) {
        for system in [System::Inches, System::Centimetres] {
            let mut project = Project { bag: family.default_for(system), ..Project::new("Walls", system) };
            for part in ["pocket", "strap", "tab", "decoration", "piece"] {
                let edit = Edit::AddPart { part: part.to_owned(), wall: None };
                project = project.edited(&edit).unwrap_or_else(|p| panic!("{family:?} {part}: {p:?}")).0;
            }
            let draft = project.plan().expect("drafts").draft;
            for face in draw::faces(&project, &draft, 560.0, 400.0) {
                assert!(face.per_unit > 0.0 && face.drawing.to_svg().starts_with("<svg"), "{family:?}");
                for (n, place) in face.places.iter().enumerate() {
                    drawn += 1;
                    let within =
                        |from: f64, long: f64, most: f64| from > -1.0 && long >= 0.0 && from + long < most + 1.0;
                    let on_it = within(place.x, place.width, 560.0) && within(place.y, place.height, 400.0);
                    assert!(on_it, "{family:?} {:?}: {place:?}", face.side);
                    assert!(face.places[n + 1..].iter().all(|p| p.held != place.held), "{family:?}: once");
                    let mut bag = project.bag.clone();
                    let mut part = match place.held {
                        draw::Held::Part(id) => Some(project.bag.part(id).expect("a part").clone()),
                        draw::Held::Own(_) => None,
                    };
                    assert!(part.as_ref().is_none_or(|p| p.sides().contains(&face.side)));
                    let fields = part.as_mut().map_or_else(|| bag.fields(), |p| p.fields());
                    // Where a marking is that stands in the middle no field says.
                    let typed = |key: &str| fields.iter().find(|f| f.key == key && !f.idle);
                    for (key, is) in place.moves.down.into_iter().chain(place.moves.ends.map(|e| (e.field, e.is))) {
                        let field = typed(key).unwrap_or_else(|| panic!("{family:?} {:?}: no {key}", place.held));
                        assert!(matches!(&field.slot, Slot::Length(l) if **l == is), "{family:?} {key}");
                        moved += 1;
                    }
                }
            }
            // The whole bag is drawn with them too.
            assert!(draw::bag(&project, &draft, 960.0, 400.0).drawing.to_svg().contains("</svg>"));
        }
    }
    assert!(drawn > 60 && moved > 40, "{drawn} {moved}");
}

/// A panel in bands shows them on its wall, from the mouth down: 3 and 6 of 13 in, the rest 4.
#[test]
fn bands_are_seen_on_the_wall() {
    let set = |field: &str, value: &str| Edit::Bag { field: field.into(), value: value.into() };
    let up = |field: &str, value: &str| Edit::MakeUp {
        piece: "outer-panel".into(),
        field: field.into(),
        value: value.into(),
    };
    let edits =
        [set("height", "13"), set("width", "14"), up("bands", "3, 6"), up("band_cloths", "outer, lining, base")];
    let project = edits.iter().fold(Project::new("Bands", System::Inches), |p, e| p.edited(e).expect("stands").0);
    let walls = project.bag.walls(project.ruler);
    let front = walls.iter().find(|w| w.piece == Some("outer-panel")).expect("a front");
    let seen = project.made_up["outer-panel"].seen(front, Part::Outer);
    let tall: Vec<f64> = seen.iter().map(|s| s.height.in_units(System::Inches)).collect();
    let cloths: Vec<Part> =
        seen.iter().filter_map(|s| if let Looks::Patch { cloth, .. } = s.looks { Some(cloth) } else { None }).collect();
    assert_eq!((tall, cloths), (vec![3.0, 6.0, 4.0], vec![Part::Outer, Part::Lining, Part::Base]));
    assert!(seen.iter().all(|s| s.width.in_units(System::Inches) == 14.0));
}

/// A border is drawn where it runs along a length, its middle 3 in from the edge; of what was cut off it is not known where
/// that has it.
#[test]
fn a_border_is_drawn_where_it_runs() {
    let cloth = ProjectCloth::default_for("lawn".into(), "Lawn".into(), Material::Cotton, System::Inches);
    let look = Look::new(Pattern::Border, "#EFE3C8", "#C7762B");
    let (up, motif_from) = (PrintUp::Across, Some(Length::INCH * 3));
    let cloth = ProjectCloth { look, up, motif_from, ..cloth };
    let drawn = |form| {
        let scale = 10.0 / Length::INCH.0 as f64;
        draw::at_hand(&cloth, &AtHand::one(form), ("k", Ruler::Eighth), scale).to_svg()
    };
    let long = drawn(HandForm::length(Length::YARD));
    assert!(long.contains(r#"patternTransform="translate(31 0) rotate(90)"#), "{long}");
    let cut_off = drawn(HandForm::Sheet { length: Length::INCH * 18, width: Length::INCH * 21 });
    assert!(cut_off.contains("#EFE3C8") && !cut_off.contains("#C7762B"), "{cut_off}");
}

/// Where a motif has its place on a piece, its middle is drawn there: on the piece, on the wall it makes, on the lay.
#[test]
fn a_motif_is_drawn_where_it_falls() {
    let field = |field, value: &str| Edit::Cloth { cloth: "moss-canvas".into(), field, value: value.into() };
    let look = Look::new(Pattern::Flower, "#EFE3C8", "#C7762B");
    let edits = [
        Edit::ClothLook { cloth: "moss-canvas".into(), look },
        field(ClothField::Repeat, "9"),
        field(ClothField::RepeatWide, "11"),
        field(ClothField::MotifFrom, "7"),
        Edit::PlaceOnPrint { piece: "outer-panel".into(), across: "6".into(), up: "middle".into() },
    ];
    let (project, planned, job, lay) = made(System::Inches, &edits);
    let moved = |drawing: &draw::Drawing, id: &str| -> (f64, f64) {
        let text = drawing.to_svg();
        let document = Document::parse(&text).expect("well formed");
        let pattern = document
            .descendants()
            .find(|n| n.has_tag_name("pattern") && n.attribute("id").is_some_and(|i| i.starts_with(id)))
            .expect("a pattern");
        let place = pattern.attribute("patternTransform").expect("placed");
        let place = place.strip_prefix("translate(").expect("moved").split_once(')').expect("closed").0;
        let (x, y) = place.split_once(' ').expect("two figures");
        (x.parse().expect("a figure"), y.parse().expect("a figure"))
    };
    let panel = planned.draft.piece("outer-panel").expect("a panel");
    let (_, height) = panel.size();
    let inch = Length::INCH.0 as f64;
    // 36 px aside and 8 below the top of the drawing.
    let piece = draw::piece(
        panel,
        Some(&project.cloths[0]),
        Ruler::Eighth,
        10.0 / inch,
        draw::Shown { marks: true, motif: project.motif_on(panel), ..draw::Shown::default() },
    );
    let (x, y) = moved(&piece, "piece-");
    assert!((x - (36.0 + 60.0)).abs() < 0.1 && (y - (8.0 + height.0 as f64 / inch * 5.0)).abs() < 0.1, "{x} {y}");
    // On the wall it stands as far from the left edge, less the seam.
    let faces = draw::faces(&project, &planned.draft, 560.0, 400.0);
    let front = &faces[0];
    let walls = project.bag.walls(project.ruler);
    let (x, _) = moved(&front.drawing, "face-");
    let wide = walls[0].width.0 as f64 / inch * front.per_unit;
    let left = (560.0 - wide) / 2.0;
    let beside = walls[0].beside.0 as f64 / inch;
    assert!((x - (left + (6.0 - beside) * front.per_unit)).abs() < 0.2, "{x}");
    // On the lay motifs lie where the job says: the first 7 in from the left edge.
    let drawing = draw::cloth_lay(&project, &job, &lay.cloths[0], 960.0, 440.0, "t").expect("drawn");
    let bare = Project { on_print: Default::default(), ..project.clone() };
    let of_bare = bare.plan().expect("it stands").job.expect("it is laid");
    assert_eq!(of_bare.cloths[0].repeat, None);
    let (x, _) = moved(&drawing, "cloth-");
    let text = drawing.to_svg();
    let document = Document::parse(&text).expect("well formed");
    let ground =
        document.descendants().filter(|n| n.has_tag_name("rect")).map(|n| (number(n, "x"), number(n, "width")));
    let (from, wide) = ground.max_by(|a, b| a.1.total_cmp(&b.1)).expect("cloth");
    // The widest is the bolt, 16 px more at each side.
    assert!((x - (from + 16.0 + (wide - 32.0) * 7.0 / 54.0)).abs() < 0.3, "{x} {from} {wide}");
    // The board shows the same, and has the print beyond it by one repeat.
    let board = draw::print_board(&project, panel, 620.0, 440.0).expect("a print");
    let (x, _) = moved(&board.print, "print-board");
    let (wide, _) = panel.size();
    let left = (620.0 - wide.0 as f64 / inch * board.per_unit) / 2.0;
    assert!((x - (board.beyond.0 + left + 6.0 * board.per_unit)).abs() < 0.2, "{x}");
    assert!(
        (board.beyond.0 - 11.0 * board.per_unit).abs() < 1e-6 && (board.beyond.1 - 9.0 * board.per_unit).abs() < 1e-6
    );
    let forgot = [field(ClothField::Repeat, ""), field(ClothField::RepeatWide, "")];
    let unknown = forgot.iter().fold(project, |p, edit| p.edited(edit).expect("it stands").0);
    assert!(draw::print_board(&unknown, panel, 620.0, 440.0).is_none());
}

/// What is there by the piece is no longer to be bought, on the list to copy and on the printed sheet; what is short is.
#[test]
fn what_is_there_by_the_piece_is_not_bought() {
    let size = Some(Length::inches(12, 8));
    let have = |name: &str, count: &str| Edit::PiecesAtHand { name: name.into(), size, count: count.into() };
    let more = [Edit::Family { family: "duffel".into() }, have("D-ring", "1"), have("Slider", "4")];
    let (project, planned, job, lay) = made(System::Inches, &more);
    let list = shopping_list(&project, &planned.draft, &job, &lay, None);
    let lines: Vec<&str> = list.lines().collect();
    let has = |start: &str| lines.iter().any(|l| l.starts_with(start));
    assert!(has("1 × D-ring, 1½ in") && has("have 1 × D-ring, 1½ in"), "{list}");
    assert!(has("have 1 × Slider") && !has("1 × Slider"), "{list}");
    assert!(has("2 × Swivel hook") && !has("have 2 × Swivel hook"), "{list}");
    let pages = sheet::cut_sheet_pages(&project, &planned, &job, &lay, &Stop::default());
    let text: String = pages.iter().map(|p| p.body.clone()).collect();
    assert!(text.contains("you have 1, 1 to buy") && text.contains("you have 1, nothing to buy"));
}

/// The flat drawing of a tote is as wide at its mouth as it says: the polygon of its front, measured.
#[rstest]
#[case(&[], 18.0 / 14.0)]
#[case(&[("rising", "slanting"), ("mouth_width", "24")], 24.0 / 14.0)]
#[case(&[("rising", "slanting"), ("mouth_width", "9")], 9.0 / 14.0)]
#[case(&[("rising", "gathered"), ("mouth_width", "12")], 12.0 / 14.0)]
#[case(&[("rising", "box-pleats"), ("pleats", "2"), ("pleat_depth", "3/4")], 12.0 / 14.0)]
fn a_tote_is_drawn_as_wide_as_its_mouth(#[case] fields: &[(&str, &str)], #[case] wider: f64) {
    let bag = |(field, value): &(&str, &str)| Edit::Bag { field: (*field).into(), value: (*value).into() };
    let sizes = [("straps", "no"), ("width", "14"), ("depth", "4"), ("height", "13")];
    let edits: Vec<Edit> = sizes.iter().chain(fields).map(bag).collect();
    let (project, planned, ..) = made(System::Inches, &edits);
    let drawn = draw::bag(&project, &planned.draft, 960.0, 400.0);
    let svg = drawn.drawing.to_svg();
    let document = Document::parse(&svg).expect("well formed");
    let front = document
        .descendants()
        .filter(|n| n.has_tag_name("polygon"))
        .find_map(outline)
        .filter(|corners| corners.len() == 4)
        .expect("the front of the flat bag is drawn first");
    // Its corners: the mouth from left to right, then the base from right to left.
    let (mouth, base) = (front[1].0 - front[0].0, front[2].0 - front[3].0);
    assert!((mouth / base - wider).abs() < 0.01, "{mouth} over {base}, where {wider} is right");
    assert!((front[0].1 - front[1].1).abs() < 1e-6 && front[0].1 < front[2].1, "{front:?}");
    // It is within the drawing, and the size of its width is taken hold of under its base.
    assert!(front.iter().all(|(x, y)| (0.0..=960.0).contains(x) && (0.0..=400.0).contains(y)), "{front:?}");
    let wide = drawn.anchors.iter().find(|a| a.field == "width").expect("a width");
    assert!((wide.x1 - front[3].0).abs() < 1.0 && (wide.x2 - front[2].0).abs() < 1.0, "{} {}", wide.x1, wide.x2);
}

/// A wall is drawn as its face is: 8 wide at the base and 6 at the zip of a pouch that slants; of one half-round on its base
/// by its curve, as high as the face; any other a rectangle.
#[test]
fn a_wall_has_the_outline_of_its_face() {
    let front = |fields: &[(&str, &str)]| {
        let mut project =
            Project { bag: Family::Pouch.default_for(System::Inches), ..Project::new("P", System::Inches) };
        for (key, value) in fields {
            project.bag.set(key, value, System::Inches).unwrap_or_else(|p| panic!("{key}: {p}"));
        }
        let draft = project.plan().expect("drafts").draft;
        let face = draw::faces(&project, &draft, 560.0, 400.0).remove(0);
        let svg = face.drawing.to_svg();
        let points = svg.split("<polygon points=\"").nth(1).expect("an outline").split('"').next().unwrap_or_default();
        let corner = |p: &str| {
            let (x, y) = p.split_once(',').expect("two numbers");
            [x, y].map(|n| n.parse::<f64>().expect("a number") / face.per_unit)
        };
        points.split(' ').map(corner).collect::<Vec<[f64; 2]>>()
    };
    let across = |points: &[[f64; 2]], low: bool| {
        let level =
            points.iter().map(|p| p[1]).fold(if low { 0.0 } else { f64::MAX }, if low { f64::max } else { f64::min });
        let xs: Vec<f64> = points.iter().filter(|p| (p[1] - level).abs() < 0.05).map(|p| p[0]).collect();
        xs.iter().fold(f64::MIN, |a, b| a.max(*b)) - xs.iter().fold(f64::MAX, |a, b| a.min(*b))
    };
    let close = |a: f64, b: f64| assert!((a - b).abs() < 0.05, "{a} and not {b}");
    let slanting = front(&[("width", "8"), ("rising", "slanting"), ("mouth_width", "6")]);
    assert_eq!(slanting.len(), 4);
    close(across(&slanting, true), 8.0);
    close(across(&slanting, false), 6.0);
    let straight = front(&[("width", "8")]);
    close(across(&straight, false), 8.0);
    let round = front(&[("width", "8"), ("height", "6"), ("style", "standing")]);
    assert!(round.len() > 12, "{}", round.len());
    close(across(&round, true), 8.0);
    assert!(across(&round, false) < 2.0);
    let ys = round.iter().map(|p| p[1]);
    close(ys.clone().fold(f64::MIN, f64::max) - ys.fold(f64::MAX, f64::min), 6.0);
}

fn pictured(one_repeat: bool) -> Look {
    let (key, size) = ("0123456789abcdef".repeat(2), Length::INCH * 3);
    let picture = Some(Swatch { key, width: size, height: size * 2, one_repeat });
    Look { picture, ..Look::new(Pattern::Sprig, "#4F6F52", "#C9D8BE") }
}

/// A cloth is drawn by its picture as large as what is seen on it; one repeat is as large as the repeat is measured.
#[test]
fn a_picture_is_as_large_as_what_is_seen_on_it() {
    let wide = |one_repeat: bool, repeat: &str| {
        let cloth = || "moss-canvas".to_owned();
        let (project, _, job, lay) = made(
            System::Inches,
            &[
                Edit::ClothLook { cloth: cloth(), look: pictured(one_repeat) },
                Edit::Cloth { cloth: cloth(), field: ClothField::RepeatWide, value: repeat.into() },
            ],
        );
        let of = &lay.cloths[0];
        let drawing = draw::cloth_lay(&project, &job, of, 960.0, 440.0, "t").expect("drawn");
        let text = drawing.to_svg();
        let document = Document::parse(&text).expect("well formed");
        let pattern = document.descendants().find(|n| n.has_tag_name("pattern")).expect("a pattern");
        assert!(pattern.descendants().any(|n| n.has_tag_name("image")), "{text}");
        tile_wide(pattern)
    };
    let (loose, other) = (wide(false, "4"), wide(false, "8"));
    assert!((loose - other).abs() < 1e-3, "what it shows is as large as it was said: {loose} {other}");
    let (four, eight) = (wide(true, "4"), wide(true, "8"));
    assert!((eight / four - 2.0).abs() < 1e-3, "{four} {eight}");
    assert!((four / loose - 4.0 / 3.0).abs() < 1e-3, "{four} {loose}");
}

fn tile_wide(pattern: Node<'_, '_>) -> f64 {
    let width: f64 = pattern.attribute("width").and_then(|w| w.parse().ok()).expect("a width");
    let turned = pattern.attribute("patternTransform").expect("it is scaled");
    let (_, scale) = turned.split_once("scale(").expect("a scale");
    let by: String = scale.chars().take_while(|c| c.is_ascii_digit() || *c == '.').collect();
    width * by.parse::<f64>().expect("a number")
}

#[test]
fn what_is_taken_away_has_its_pictures_in_itself() {
    let key = "0123456789abcdef".repeat(2);
    let svg = format!(
        r#"<svg><image href="{}{key}" width="2"/><image href="{}gone"/></svg>"#,
        draw::PICTURES_AT,
        draw::PICTURES_AT
    );
    let kept = draw::with_pictures(&svg, &|asked| (asked == key).then(|| vec![1, 2, 3]));
    assert_eq!(kept, r#"<svg><image href="data:image/jpeg;base64,AQID" width="2"/><image href=""/></svg>"#);
    assert_eq!(draw::with_pictures("<svg/>", draw::NO_PICTURES), "<svg/>");
}
