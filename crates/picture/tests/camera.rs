//! Scraps traced from pictures whose truth is known apart.
#![allow(missing_docs)]

use bofta_core::lay::Random;
use bofta_core::measure::Length;
use bofta_picture::camera::{Laid, Scene, jpeg, printed, table};
use bofta_picture::{NotTraced, Outlined, Reference, print_of, size_of, trace};
use image::{ImageEncoder, ImageFormat, RgbImage};
use rstest::rstest;

const MM: f64 = Length::MILLIMETRE.0 as f64;

fn scene() -> Scene {
    Scene {
        scraps: vec![],
        tilt: 0.0,
        towards: 0.0,
        scale: 1.0,
        grid: None,
        lens: 0.0,
        noise: 3.0,
        shadow: 0.2,
        ..table(1)
    }
}

/// A scrap with corners of 50° and more, about the middle of the mat.
fn odd(seed: u64, colour: [u8; 3]) -> Laid {
    let mut random = Random::new(seed);
    let mut even = |low: f64, high: f64| low + (high - low) * (random.next_u64() >> 11) as f64 / (1_u64 << 53) as f64;
    let n = 4 + (seed % 4) as usize;
    let corners = (0..n).map(|k| {
        let turn = (k as f64 + even(-0.2, 0.2)) / n as f64 * std::f64::consts::TAU;
        let r = even(95.0, 165.0);
        (300.0 + r * turn.cos(), 200.0 + r * turn.sin())
    });
    Laid { corners: corners.collect(), colour, dots: None }
}

type Place = (f64, f64);

fn area(corners: &[Place]) -> f64 {
    let n = corners.len();
    (0..n).map(|i| corners[i].0 * corners[(i + 1) % n].1 - corners[i].1 * corners[(i + 1) % n].0).sum::<f64>() / 2.0
}

fn to_edge(p: Place, edge: &[Place]) -> f64 {
    let n = edge.len();
    (0..n)
        .map(|i| {
            let (a, b) = (edge[i], edge[(i + 1) % n]);
            let (dx, dy) = (b.0 - a.0, b.1 - a.1);
            let t = (((p.0 - a.0) * dx + (p.1 - a.1) * dy) / (dx * dx + dy * dy)).clamp(0.0, 1.0);
            (a.0 + t * dx - p.0).hypot(a.1 + t * dy - p.1)
        })
        .fold(f64::INFINITY, f64::min)
}

/// Points along an edge, a millimetre apart.
fn along(edge: &[Place]) -> Vec<Place> {
    let n = edge.len();
    (0..n)
        .flat_map(|i| {
            let (a, b) = (edge[i], edge[(i + 1) % n]);
            let steps = (a.0 - b.0).hypot(a.1 - b.1).ceil().max(1.0) as usize;
            (0..steps).map(move |k| {
                let t = k as f64 / steps as f64;
                (a.0 + (b.0 - a.0) * t, a.1 + (b.1 - a.1) * t)
            })
        })
        .collect()
}

/// How far the outline is from the truth, in millimetres and as a share of the area, moved to lie on it as well as can be.
fn off(found: &Outlined, truth: &[Place]) -> (f64, f64) {
    let corners: Vec<Place> = found.corners.iter().map(|p| (p.x.0 as f64 / MM, p.y.0 as f64 / MM)).collect();
    let middle = |edge: &[Place]| {
        let all = along(edge);
        let n = all.len() as f64;
        (all.iter().map(|p| p.0).sum::<f64>() / n, all.iter().map(|p| p.1).sum::<f64>() / n)
    };
    let (is, was) = (middle(&corners), middle(truth));
    let moved: Vec<Place> = corners.iter().map(|p| (p.0 + was.0 - is.0, p.1 + was.1 - is.1)).collect();
    let most = |from: &[Place], to: &[Place]| along(from).iter().map(|p| to_edge(*p, to)).fold(0.0, f64::max);
    let share = (area(&moved) - area(truth)).abs() / area(truth);
    (most(&moved, truth).max(most(truth, &moved)), share)
}

fn traced(scene: &Scene) -> Result<Vec<Outlined>, NotTraced> {
    let shot = scene.shot();
    let found = trace(&jpeg(&shot.picture, 90), &scene.reference(&shot), Length::MILLIMETRE * 3 / 2)?;
    assert_eq!((found.cut_off, found.rim), (0, false));
    Ok(found.scraps)
}

/// At a pixel to a millimetre: no point further off than 3 mm, the area within a hundredth. With `--nocapture` it prints
/// the rows of the table in docs/cloth.md.
#[rstest]
fn an_outline_is_told_truly(#[values(0.0, 10.0, 20.0)] tilt: f64, #[values(0, 1, 2)] kind: u64) {
    let mut worst = (0.0_f64, 0.0_f64);
    for seed in 0..6 {
        let (colour, mat, grid) = match kind {
            0 => ([205, 120, 84], [74, 108, 92], Some(50.0)),
            // Near the mat's own colour.
            1 => ([104, 126, 108], [74, 108, 92], None),
            _ => ([236, 232, 224], [168, 160, 148], Some(25.0)),
        };
        let scene = Scene {
            scraps: vec![odd(seed * 3 + kind, colour)],
            mat_colour: mat,
            grid,
            tilt,
            towards: seed as f64 * 61.0,
            lens: 0.002,
            seed,
            ..scene()
        };
        let found = traced(&scene).unwrap_or_else(|e| panic!("seed {seed}: {e}"));
        assert_eq!(found.len(), 1, "seed {seed}");
        let (furthest, share) = off(&found[0], &scene.scraps[0].corners);
        assert!(furthest < 3.0 && share < 0.01, "seed {seed}: {furthest:.2} mm, {:.2} %", share * 100.0);
        worst = (worst.0.max(furthest), worst.1.max(share));
    }
    let cloth = ["on a gridded mat", "near the mat's colour", "pale on a pale gridded mat"][kind as usize];
    println!("| {cloth} | {tilt}° | {:.1} mm | {:.2} % |", worst.0, worst.1 * 100.0);
}

/// Several in one picture, printed ones too, as the demo's camera takes them.
#[test]
fn every_scrap_of_a_picture_is_found() {
    for number in 0..9 {
        let scene = table(number);
        let found = traced(&scene).unwrap_or_else(|e| panic!("picture {number}: {e}"));
        assert_eq!(found.len(), scene.scraps.len(), "picture {number}");
        for one in &found {
            let best = scene.scraps.iter().map(|s| off(one, &s.corners)).min_by(|a, b| a.0.total_cmp(&b.0));
            let (furthest, share) = best.expect("a scrap");
            assert!(furthest < 3.0 && share < 0.01, "picture {number}: {furthest:.2} mm, {:.2} %", share * 100.0);
        }
    }
}

#[test]
fn what_cannot_be_traced_is_told() {
    let bare = scene();
    let shot = bare.shot();
    let (bytes, known) = (jpeg(&shot.picture, 90), bare.reference(&shot));
    let by = |bytes: &[u8], known: &Reference| trace(bytes, known, Length::MILLIMETRE).map(|t| t.scraps.len());
    assert_eq!(by(&bytes, &known), Err(NotTraced::Nothing));
    assert_eq!(by(b"not a picture", &known), Err(NotTraced::NotAPicture));
    assert_eq!(by(&bytes[..400], &known), Err(NotTraced::NotAPicture));
    let marks = |marks| Reference { marks, ..known };
    let [a, b, c, d] = known.marks;
    assert_eq!(by(&bytes, &marks([a, c, b, d])), Err(NotTraced::MarksCross));
    assert_eq!(by(&bytes, &marks([a, a, c, d])), Err(NotTraced::MarksCross));
    assert_eq!(by(&bytes, &marks([d, c, b, a])), Err(NotTraced::MarksCross));
    assert_eq!(by(&bytes, &marks([(-5.0, 0.0), b, c, d])), Err(NotTraced::MarksOutside));
    assert_eq!(by(&bytes, &marks([(f64::NAN, 0.0), b, c, d])), Err(NotTraced::MarksOutside));
    assert_eq!(by(&bytes, &Reference { width: Length::ZERO, ..known }), Err(NotTraced::KnownSize));
    assert_eq!(
        by(&bytes, &Reference { width: Length::METRE * 4, height: Length::METRE * 4, ..known }),
        Err(NotTraced::TooFar)
    );
    // A picture larger than is worked on is refused by its header.
    let mut large = image::RgbImage::new(64, 64);
    large.fill(7);
    let mut png = Vec::new();
    image::DynamicImage::from(large)
        .write_to(&mut std::io::Cursor::new(&mut png), image::ImageFormat::Png)
        .expect("written");
    assert_eq!(by(&png, &marks([(1.0, 1.0), (60.0, 1.0), (60.0, 60.0), (1.0, 60.0)])), Err(NotTraced::TooFar));
    for sentence in [NotTraced::TooLarge(40), NotTraced::CutOff, NotTraced::Nothing, NotTraced::TooSmall(3, 4)] {
        assert!(sentence.to_string().len() > 30);
    }
}

/// Marks that are off their corners are told, since all sizes are wrong then.
#[test]
fn a_mark_off_its_corner_is_told() {
    let scene = Scene { scraps: vec![odd(2, [205, 120, 84])], ..scene() };
    let shot = scene.shot();
    let by = |out: f64| {
        let mut known = scene.reference(&shot);
        known.marks[0] = (known.marks[0].0 - out, known.marks[0].1 - out);
        let found = trace(&jpeg(&shot.picture, 90), &known, Length::MILLIMETRE).expect("traced");
        found.rim || found.cut_off > 0
    };
    assert_eq!([0.0, 8.0, 20.0].map(by), [false, true, true]);
}

/// A hole is told with the scrap; a dot of the print is none.
#[test]
fn a_hole_is_a_hole_and_a_dot_is_print() {
    let dotted = |colour, apart| Laid { dots: Some((colour, apart)), ..odd(4, [240, 222, 186]) };
    let seen = |scrap| traced(&Scene { scraps: vec![scrap], ..scene() }).expect("traced").remove(0);
    assert_eq!(seen(dotted([150, 60, 40], 24.0)).holes.len(), 0);
    // Small dots as green as the mat may be holes: they are taken as print, and that is told.
    let specked = seen(dotted([74, 108, 92], 14.0));
    assert_eq!(specked.holes.len(), 0);
    assert!(specked.specks > 50, "{}", specked.specks);
    // A frame: the outer edge and, the other way round, the inner one, joined by a cut no wider than nothing.
    let outer = [(200.0, 100.0), (400.0, 100.0), (400.0, 300.0), (200.0, 300.0), (200.0, 100.0)];
    let inner = [(260.0, 160.0), (260.0, 200.0), (320.0, 200.0), (320.0, 160.0), (260.0, 160.0)];
    let corners = outer.into_iter().chain(inner).collect();
    let found = traced(&Scene { scraps: vec![Laid { corners, ..odd(4, [205, 120, 84]) }], ..scene() }).expect("traced");
    assert_eq!((found.len(), found[0].holes.len()), (1, 1));
    let hole: Vec<Place> = found[0].holes[0].iter().map(|p| (p.x.0 as f64 / MM, p.y.0 as f64 / MM)).collect();
    assert!((area(&hole).abs() - 2_400.0).abs() < 60.0, "{}", area(&hole));
}

/// The same number makes the same picture.
#[test]
fn the_camera_is_the_same_on_every_machine() {
    assert_eq!(table(3).shot().picture, table(3).shot().picture);
    assert_ne!(table(3).shot().picture, table(4).shot().picture);
}

/// Damaged pictures are an answer and never a fall, and so are damaged marks.
#[test]
fn mutated_pictures() {
    let small = Scene { scraps: vec![odd(1, [205, 120, 84])], scale: 0.35, ..scene() };
    let shot = small.shot();
    let known = small.reference(&shot);
    let mut png = Vec::new();
    let picture = image::DynamicImage::from(shot.picture.clone());
    picture.write_to(&mut std::io::Cursor::new(&mut png), image::ImageFormat::Png).expect("written");
    bofta_mutations::try_all("pictures", &[jpeg(&shot.picture, 80), png], 20, |bytes| {
        let turned = bytes.len() % 4;
        let mut other = known;
        other.marks.rotate_left(turned);
        let _ = trace(bytes, &other, Length::MILLIMETRE * 2);
        let _ = trace(bytes, &known, Length::MILLIMETRE * 2);
    });
}

/// The print as it is, at a place of the kept picture.
fn truth(scene: &Scene, tile: &image::RgbImage, x: u32, y: u32) -> [u8; 3] {
    let share = |at: u32, of: u32| (f64::from(at) + 0.5) / f64::from(of);
    let print = scene.print.as_ref().expect("a print");
    print.colour((share(x, tile.width()) * scene.mat.0, (1.0 - share(y, tile.height())) * scene.mat.1))
}

#[rstest]
fn a_print_is_seen_from_straight_above_and_in_even_light(
    #[values(1, 2, 3, 4)] number: u64,
    #[values(0.0, 20.0)] tilt: f64,
) {
    let scene = Scene { tilt, ..printed(number) };
    let shot = scene.shot();
    let taken = print_of(&jpeg(&shot.picture, 90), &scene.reference(&shot), true).expect("a print");
    let tile = image::load_from_memory(&taken.jpeg).expect("a picture").into_rgb8();
    assert!(tile.width().max(tile.height()) <= 480, "{:?}", tile.dimensions());
    // Its shape is that of the repeat.
    let aspect = f64::from(tile.width()) / f64::from(tile.height());
    assert!((aspect / (scene.mat.0 / scene.mat.1) - 1.0).abs() < 0.01, "{aspect}");
    // Figures and ground lie where they are: of a hundred places few differ by more than noise and soft edges.
    let gain = {
        let Some(print) = &scene.print else { unreachable!() };
        f64::from(taken.ground[0]) / f64::from(print.ground[0])
    };
    let (mut off, mut all) = (0, 0);
    for y in (4..tile.height() - 4).step_by(3) {
        for x in (4..tile.width() - 4).step_by(3) {
            let (is, should) = (tile.get_pixel(x, y).0, truth(&scene, &tile, x, y));
            let differs = is.iter().zip(should).any(|(&a, b)| (f64::from(a) - f64::from(b) * gain).abs() > 30.0);
            (off, all) = (off + u32::from(differs), all + 1);
        }
    }
    assert!(off * 100 < all * 5, "{off} of {all} places differ");
    // The colours are the print's own, as light as the light was.
    let near =
        |a: [u8; 3], b: [u8; 3]| a.iter().zip(b).all(|(&a, b)| (f64::from(a) - f64::from(b) * gain).abs() < 24.0);
    let print = scene.print.as_ref().expect("a print");
    assert!(near(taken.ground, print.ground), "{:?}", taken.ground);
    assert!(!near(taken.figure, print.ground), "{:?}", taken.figure);
}

#[test]
fn light_that_falls_off_is_made_even_only_over_one_repeat() {
    let scene = Scene { falls_off: 0.5, noise: 0.0, ..printed(1) };
    let shot = scene.shot();
    let bytes = jpeg(&shot.picture, 95);
    let edges = |one_repeat: bool| {
        let jpeg = print_of(&bytes, &scene.reference(&shot), one_repeat).expect("a print").jpeg;
        let tile = image::load_from_memory(&jpeg).expect("a picture").into_rgb8();
        let (w, h) = tile.dimensions();
        let mean = |x: u32| (0..h).map(|y| f64::from(tile.get_pixel(x, y).0[1])).sum::<f64>() / f64::from(h);
        (mean(2) - mean(w - 3)).abs()
    };
    assert!(edges(false) > 15.0, "{}", edges(false));
    assert!(edges(true) < 4.0, "{}", edges(true));
}

#[test]
fn what_is_no_print_is_refused_by_a_sentence() {
    let reference = Reference {
        marks: [(0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)],
        width: Length::INCH,
        height: Length::INCH,
    };
    assert_eq!(print_of(b"GIF89a", &reference, true), Err(NotTraced::NotAPicture));
    let shot = printed(1).shot();
    let bytes = jpeg(&shot.picture, 90);
    let crossed = Reference { marks: [(300.0, 10.0), (10.0, 10.0), (300.0, 300.0), (10.0, 300.0)], ..reference };
    assert_eq!(print_of(&bytes, &crossed, true), Err(NotTraced::MarksCross));
    let small = Reference { width: Length::MILLIMETRE, ..printed(1).reference(&shot) };
    assert_eq!(print_of(&bytes, &small, true), Err(NotTraced::KnownSize));
}

/// The picture as a camera held another way keeps it: its pixels turned, and in its Exif how to turn them back (Exif 2.3,
/// tag 0x0112: 1 as it is, 3 half round, 6 and 8 a quarter, the others mirrored too).
fn held(picture: &RgbImage, orientation: u8, format: ImageFormat) -> Vec<u8> {
    use image::imageops::{flip_horizontal, flip_vertical, rotate90, rotate180, rotate270};
    let turned = match orientation {
        2 => flip_horizontal(picture),
        3 => rotate180(picture),
        4 => flip_vertical(picture),
        5 => flip_horizontal(&rotate90(picture)),
        6 => rotate270(picture),
        7 => flip_horizontal(&rotate270(picture)),
        8 => rotate90(picture),
        _ => picture.clone(),
    };
    let exif =
        [b"II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0".as_slice(), &[orientation, 0, 0, 0, 0, 0, 0, 0]].concat();
    let mut bytes = vec![];
    let (wide, tall) = turned.dimensions();
    fn encoded(mut encoder: impl ImageEncoder, exif: Vec<u8>, pixels: &[u8], (wide, tall): (u32, u32)) {
        encoder.set_exif_metadata(exif).expect("it holds Exif");
        encoder.write_image(pixels, wide, tall, image::ExtendedColorType::Rgb8).expect("written");
    }
    match format {
        ImageFormat::Png => encoded(image::codecs::png::PngEncoder::new(&mut bytes), exif, &turned, (wide, tall)),
        ImageFormat::WebP => {
            encoded(image::codecs::webp::WebPEncoder::new_lossless(&mut bytes), exif, &turned, (wide, tall));
        }
        _ => encoded(image::codecs::jpeg::JpegEncoder::new_with_quality(&mut bytes, 95), exif, &turned, (wide, tall)),
    }
    bytes
}

/// Whichever way the camera was held, what is measured is what is seen upright.
#[rstest]
fn a_picture_is_turned_upright_before_it_is_measured(
    #[values(1, 2, 3, 4, 5, 6, 7, 8)] orientation: u8,
    #[values(ImageFormat::Jpeg, ImageFormat::Png, ImageFormat::WebP)] format: ImageFormat,
) {
    let scene = Scene { scraps: vec![odd(4, [205, 120, 84])], ..scene() };
    let shot = scene.shot();
    let bytes = held(&shot.picture, orientation, format);
    assert_eq!(size_of(&bytes), Ok(shot.picture.dimensions()));
    let found = trace(&bytes, &scene.reference(&shot), Length::MILLIMETRE * 3 / 2).expect("traced");
    let (furthest, share) = off(&found.scraps[0], &scene.scraps[0].corners);
    assert!(furthest < 3.0 && share < 0.01, "{furthest:.2} mm, {:.2} %", share * 100.0);
}
