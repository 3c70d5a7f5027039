//! Prints that meet at the side seams, and remnants with the outline that cutting leaves.

use crate::support::{job, piece, shaped};
use bofta_core::bag::Family;
use bofta_core::bag::sewn::{Edge, Stretch, runs};
use bofta_core::cloth::{Form, MOST_SCRAP_CORNERS};
use bofta_core::cutting::{cut_list, left_shaped, left_whole};
use bofta_core::lay::{Budget, Job, Lay, Placement, Silent, solve};
use bofta_core::measure::{Length, System};
use bofta_core::piece::Part;
use bofta_core::project::{ClothField, Edit, Look, Pattern, Project};
use bofta_core::shape::{Outline, Point};
use rstest::rstest;

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn set(field: ClothField, value: &str) -> Edit {
    Edit::Cloth { cloth: "check".into(), field, value: value.into() }
}

/// A bag of `family`, all of it in one check whose repeat is so tall.
fn in_check(family: Family, repeat: &str) -> Project {
    let mut project = Project::new("Bag", System::Inches);
    project.bag = family.default_for(System::Inches);
    let add = Edit::AddCloth { name: "Check".into(), material: "canvas".into() };
    let look = Edit::ClothLook { cloth: "check".into(), look: Look::new(Pattern::Check, "#efe3c8", "#c7762b") };
    let assigned = Part::ALL.map(|part| Edit::Assign { part: part.key().into(), cloth: "check".into() });
    made(&project, &[vec![add, look, set(ClothField::Repeat, repeat)], assigned.to_vec()].concat())
}

/// Where the print stands at the foot of the side edge `s` sews, by arithmetic of its own: a motif's height less the
/// foot's, within one repeat.
fn phase(project: &Project, s: &Stretch, repeat: i64) -> Option<i64> {
    let draft = project.plan().expect("drafts").draft;
    let piece = draft.piece(&s.piece).filter(|p| p.when.is_laid())?;
    (s.edge == Edge::Side && s.then.is_none()).then_some(())?;
    let foot = runs(piece, Edge::Side).iter().flatten().map(|p| p.y.0).min()?;
    Some((project.motif_on(piece)?.y.0 - foot).rem_euclid(repeat))
}

#[rstest]
fn a_matched_print_meets_at_every_side_seam(
    #[values(0, 1, 2, 3, 4, 5, 6, 7)] family: usize,
    #[values("3", "4 3/8", "2 1/4")] repeat: &str,
) {
    let family = Family::ALL[family];
    let project = in_check(family, repeat);
    let matched = match project.edited(&Edit::MatchPrint { cloth: "check".into() }) {
        Ok((matched, told)) => {
            assert!(told.starts_with("Check meets at the seams: "), "{told}");
            matched
        }
        Err(why) => {
            // What cannot meet says so, and nothing is changed.
            assert!(!matches!(family, Family::Tote | Family::Pouch | Family::Caddy), "{family:?}: {why:?}");
            assert!(["cloth", "piece"].contains(&why[0].field.as_str()), "{why:?}");
            return;
        }
    };
    let tall = matched.cloths[0].repeat.expect("measured").0;
    let mut met = 0;
    for seam in matched.bag.seams(matched.ruler) {
        if let [Some(a), Some(b)] = seam.sides.each_ref().map(|s| phase(&matched, s, tall)) {
            assert_eq!(a, b, "{family:?}: {}", seam.name);
            met += 1;
        }
    }
    assert!(met > 0, "{family:?}");
    // It is still a plan, or says what of the print is in the way.
    let planned = matched.plan().expect("drafts");
    assert!(planned.job.is_some() || !planned.problems.is_empty());
}

#[rstest]
#[case(Pattern::Ticking, "3", "repeat")]
#[case(Pattern::Check, "", "repeat")]
fn what_has_nothing_to_meet_says_so(#[case] pattern: Pattern, #[case] repeat: &str, #[case] named: &str) {
    let look = Edit::ClothLook { cloth: "check".into(), look: Look::new(pattern, "#efe3c8", "#c7762b") };
    let project = made(&in_check(Family::Tote, "3"), &[look, set(ClothField::Repeat, repeat)]);
    let why = project.edited(&Edit::MatchPrint { cloth: "check".into() }).expect_err("refused");
    assert_eq!(why[0].field, named);
    let none = project.edited(&Edit::MatchPrint { cloth: "no-such".into() }).expect_err("refused");
    assert_eq!(none[0].field, "cloth");
}

fn inch(n: i64) -> Length {
    Length::INCH * n
}

fn doubled(corners: &[Point]) -> i128 {
    let n = corners.len();
    let cross = |i: usize| {
        let (a, b) = (corners[i], corners[(i + 1) % n]);
        i128::from(a.x.0) * i128::from(b.y.0) - i128::from(a.y.0) * i128::from(b.x.0)
    };
    (0..n).map(cross).sum()
}

fn laid(job: &Job) -> Lay {
    solve(job, Budget::iterations(40), &mut Silent).expect("laid")
}

/// Pieces with outlines on a piece of cloth: what comes back has the area that is left, lies on the cloth and on no piece.
#[rstest]
#[case(vec![shaped("round", Outline::Circle(inch(9)), 1)], (30, 20))]
#[case(vec![shaped("round", Outline::Circle(inch(7)), 2), piece("strip", inch(3), inch(11), 1)], (34, 24))]
#[case(vec![shaped("wedge", Outline::Polygon([(0, 0), (12, 0), (3, 9)].map(|(x, y)| Point::new(inch(x), inch(y))).to_vec()), 2)], (26, 22))]
fn what_is_left_round_a_template_keeps_its_outline(
    #[case] pieces: Vec<bofta_core::lay::JobPiece>,
    #[case] (wide, tall): (i64, i64),
) {
    let mut all = job(inch(wide), pieces);
    all.cloths[0].form = Form::Sheet { width: inch(wide), height: inch(tall), count: 1 };
    all.cloths[0].owned = true;
    let lay = laid(&all);
    assert!(lay.complete());
    let on = &lay.cloths[0];
    let shapes = left_shaped(&all, on);
    let lies = |p: &Placement| {
        let corners = all.piece(&p.piece).expect("known").outline.placed(p.turn, p.mirrored);
        corners.into_iter().map(|c| Point::new(c.x + p.x, c.y + p.y)).collect::<Vec<_>>()
    };
    let off: Vec<Vec<Point>> = on.placements.iter().map(lies).collect();
    let whole: i128 = left_whole(&all, on).iter().map(|p| (p.width * p.height).0 * i128::from(p.count) * 2).sum();
    let left: i128 = shapes.iter().map(|s| doubled(&s.corners)).sum();
    let cloth = (inch(wide) * inch(tall)).0 * 2;
    let taken: i128 = off.iter().map(|o| doubled(o).abs()).sum();
    // No more comes back than there is; and all of it, but for what is too small to keep.
    assert!(whole + left + taken <= cloth + cloth / 10_000, "{whole} {left} {taken} {cloth}");
    assert!(!shapes.is_empty() || whole > 0);
    for shape in &shapes {
        let held = shape.scrap.holds().expect("it holds something");
        assert!(held.0 >= inch(5) && held.1 >= inch(5), "{held:?}");
        // The same, moved; of more corners than a scrap has, told to a millimetre.
        let (seen, kept) = (doubled(&shape.corners), doubled(&shape.scrap.outline.corners()));
        assert!(shape.scrap.outline.corners().len() <= MOST_SCRAP_CORNERS);
        assert!((seen - kept).abs() * 100 <= seen, "{seen} {kept}");
        assert!(shape.corners.len() > MOST_SCRAP_CORNERS || seen == kept);
        for p in &shape.corners {
            assert!(
                p.x >= Length(-2)
                    && p.y >= Length(-2)
                    && p.x <= inch(wide) + Length(2)
                    && p.y <= inch(tall) + Length(2)
            );
        }
        // Looked at point by point, it lies on no piece.
        let inside = |corners: &[Point], x: i64, y: i64| {
            let n = corners.len();
            (0..n).fold(false, |odd, i| {
                let (a, b) = (corners[i], corners[(i + 1) % n]);
                let crosses = (a.y.0 > y) != (b.y.0 > y)
                    && (x as f64) < a.x.0 as f64 + (y - a.y.0) as f64 / (b.y.0 - a.y.0) as f64 * (b.x.0 - a.x.0) as f64;
                odd != crosses
            })
        };
        for y in (1..tall * 4).map(|y| y * Length::INCH.0 / 4 + 13) {
            for x in (1..wide * 4).map(|x| x * Length::INCH.0 / 4 + 17) {
                let both = inside(&shape.corners, x, y) && off.iter().any(|o| inside(o, x, y));
                assert!(!both, "{x} {y}");
            }
        }
    }
    assert!(!cut_list(&all, &lay.cloths, &[], &[]).is_empty());
}

/// Four hundred circles on one length: what comes back is no more than is left, however many parts that lies in.
#[test]
fn what_is_left_between_very_many_templates_is_no_more_than_there_is() {
    let all = job(inch(60), vec![shaped("round", Outline::Circle(inch(3)), 400)]);
    let lay = solve(&all, Budget::iterations(0), &mut Silent).expect("laid");
    assert!(lay.complete());
    for on in &lay.cloths {
        let left: i128 = left_shaped(&all, on).iter().map(|s| doubled(&s.corners)).sum();
        let corners = Outline::Circle(inch(3)).placed(bofta_core::shape::Turn::NONE, false);
        let taken = doubled(&corners).abs() * on.placements.len() as i128;
        assert!(left + taken <= (inch(60) * on.buy_length).0 * 2, "{left} {taken}");
    }
}
