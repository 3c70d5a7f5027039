//! Small parts: loops, ring tabs, a wrist strap, belt loops, a bow, covered buttons. Common practice.
//!
//! A loop that finishes ℓ long is cut 2 × (ℓ + seam), four times as wide as it finishes (or as its make says). A belt
//! loop lies flat: ℓ + 2 turns. A bow is two pieces as large as it and a seam all round, its knot twice as wide as it
//! finishes. A button is covered by a round of twice its diameter (from memory).

use super::cloth::ClothOf;
use super::{Ground, PartOn, refuse_beyond, relabel};
use crate::bag::draft::{Draft, Hardware};
use crate::bag::field::{Choice, Field, Group, choice};
use crate::bag::order::Phase;
use crate::bag::problems::Problems;
use crate::bag::strap::{Strap, StrapMake};
use crate::bag::wall::{At, Looks, Moves, Seen, Side, Wall};
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Figure, From, Grain, Mark, Piece};

choice! {
    /// What a small part is.
    TabKind {
        /// A doubled strip.
        Loop = "loop", "Loop", "a strip doubled, its ends caught in a seam";
        /// A loop that holds a ring.
        RingTab = "ring-tab", "Tab with a D-ring", "";
        /// A loop with a hook for keys.
        KeyLoop = "key-loop", "Loop with a swivel hook", "for keys";
        /// A loop for a wrist.
        Wrist = "wrist", "Wrist strap", "";
        /// A strip stitched down at both ends.
        BeltLoop = "belt-loop", "Belt loop", "a strip stitched down at both ends";
        /// A bow with its knot.
        Bow = "bow", "Bow", "two layers turned, drawn through a knot";
        /// A covered button.
        Button = "button", "Covered button", "a round of twice its diameter";
    }
}

choice! {
    /// Where a small part is caught.
    TabAt {
        /// In a side seam.
        SideSeam = "side-seam", "In a side seam", "";
        /// In both of them.
        BothSides = "both-side-seams", "In both side seams", "";
        /// In the mouth.
        Mouth = "mouth", "In the mouth, in the middle of the wall", "";
        /// On the face.
        Face = "face", "On the face, in the middle", "";
    }
}

/// A small part by its finished sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct AddedTab {
    name: String,
    what: TabKind,
    at: TabAt,
    wall: Side,
    count: u32,
    make: StrapMake,
    width: Length,
    /// How long it finishes; of a bow how wide.
    length: Length,
    below: Length,
    turn: Length,
    cloth: ClothOf,
}

impl AddedTab {
    fn is_strip(&self) -> bool {
        !matches!(self.what, TabKind::Bow | TabKind::Button)
    }

    /// What catches its ends: the seam it is in, else its own turn.
    fn pieces(&self, on: &Ground<'_>, draft: &mut Draft) {
        let (length, turn) = (self.length, self.turn);
        match self.what {
            TabKind::Bow => {
                let size = |name, size, key| on.sum(vec![on.once(name, size, key), on.times("seams", 2, turn, "turn")]);
                let bow = Piece::new(
                    on.id("bow"),
                    on.name.to_owned(),
                    self.cloth.part(),
                    size("wide", length, "length"),
                    size("tall", self.width, "width"),
                );
                draft.pieces.push(bow.times(2 * self.count).noted("two layers, long edges sewn, turned"));
                let knot = default_length(on.ruler.system(), 16, 50);
                let wide = on.sum(vec![on.times(
                    "knot, both edges to the middle",
                    2,
                    default_length(on.ruler.system(), 8, 25),
                    "what",
                )]);
                let long =
                    on.sum(vec![on.once("round the bow", self.width, "width"), on.once("lapped behind", knot, "what")]);
                draft.pieces.push(
                    Piece::new(on.id("knot"), format!("{}, knot", on.name), self.cloth.part(), wide, long)
                        .times(self.count)
                        .lying(Grain::Either),
                );
            }
            TabKind::Button => {
                let round = || on.sum(vec![on.times("its diameter, front and back", 2, self.width, "width")]);
                let cover =
                    Piece::new(on.id("cover"), format!("{}, cover", on.name), self.cloth.part(), round(), round());
                draft.pieces.push(cover.times(self.count).shaped(Figure::Circle).lying(Grain::Any));
            }
            _ => {
                let long = if self.what == TabKind::BeltLoop {
                    vec![on.once("long", length, "length"), on.times("turned under, both ends", 2, turn, "turn")]
                } else {
                    vec![on.times("long, doubled", 2, length, "length"), on.times("caught, both ends", 2, turn, "turn")]
                };
                let keys = [("strap_width", "width"), ("strap_make", "make"), ("seam_side", "turn")];
                let strip = Strap { make: self.make, width: self.width, turn };
                let (pieces, goods) = strip.made("tab", "tab", self.in_all(), long, on.ruler);
                for piece in pieces {
                    let name =
                        if piece.id.ends_with("-inner") { format!("{}, inner", on.name) } else { on.name.to_owned() };
                    let id = on.id(&piece.id);
                    let piece = on.relabelled(piece, &keys);
                    draft.pieces.push(Piece { id: id.into(), name: name.into(), part: self.cloth.part(), ..piece });
                }
                for mut good in goods {
                    relabel(&mut good.length, on.prefix, &keys);
                    good.name = on.name.to_owned().into();
                    draft.goods.push(good);
                }
            }
        }
    }

    /// How many: at both side seams so many at each.
    fn in_all(&self) -> u32 {
        if self.at == TabAt::BothSides { self.count * 2 } else { self.count }
    }

    fn step(&self, on: &Ground<'_>) -> String {
        let name = on.name;
        let place = match self.at {
            TabAt::SideSeam => "tack it at its mark on the side edge, before that side is sewn",
            TabAt::BothSides => "tack them at their marks on the side edges, before the sides are sewn",
            TabAt::Mouth => "tack it in the middle of the mouth, before that is sewn",
            TabAt::Face => "stitch it at its mark on the face, before anything is joined",
        };
        let place = if self.count > 1 && self.what != TabKind::Button {
            format!("{place}; space the others as you like from it")
        } else {
            place.to_owned()
        };
        match self.what {
            TabKind::Bow => format!("{name}: sew the long edges, turn, draw it through the knot; {place}."),
            TabKind::Button => format!("{name}: gather the round over the button; sew it on last."),
            TabKind::RingTab => format!("{name}: make the strip, fold it round its ring; {place}."),
            _ => format!("{name}: make the strip and fold it; {place}."),
        }
    }
}

impl PartOn for AddedTab {
    fn default_for(system: System) -> Self {
        let size = |eighths, tenths| default_length(system, eighths, tenths);
        Self {
            name: String::new(),
            what: TabKind::Loop,
            at: TabAt::SideSeam,
            wall: Side::Front,
            count: 1,
            make: StrapMake::FoldedInFour,
            width: size(4, 15),
            length: size(16, 50),
            below: size(16, 50),
            turn: size(4, 10),
            cloth: ClothOf::Straps,
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        let (strip, what) = (self.is_strip(), self.what);
        let aside = matches!(self.at, TabAt::SideSeam | TabAt::BothSides | TabAt::Face);
        let g = Group::Extras;
        vec![
            Field::choice("what", "What it is", g, &mut self.what),
            Field::choice("at", "Where it is caught", g, &mut self.at),
            Field::choice("wall", "On which wall", g, &mut self.wall),
            Field::size("below", "Below the mouth", g, &mut self.below).scaling().only_if(aside),
            Field::count("count", "How many", g, &mut self.count, 1..=24),
            Field::choice("make", "How it is made", g, &mut self.make).only_if(strip),
            Field::size(
                "width",
                match what {
                    TabKind::Bow => "Tall, finished",
                    TabKind::Button => "The button, across",
                    _ => "Finished width",
                },
                g,
                &mut self.width,
            ),
            Field::size(
                "length",
                if what == TabKind::Bow { "Wide, finished" } else { "Long, finished" },
                g,
                &mut self.length,
            )
            .only_if(what != TabKind::Button),
            Field::size("turn", "Seam that catches it", g, &mut self.turn).only_if(what != TabKind::Button),
            Field::choice("cloth", "Its cloth", g, &mut self.cloth),
            Field::text("name", "What you call it", g, &mut self.name),
        ]
    }

    fn own_name(&self) -> &str {
        &self.name
    }

    fn usual_name(&self) -> String {
        match self.what {
            TabKind::RingTab => "Ring tab".to_owned(),
            TabKind::KeyLoop => "Key loop".to_owned(),
            _ => self.what.answer().name.to_owned(),
        }
    }

    fn summary(&self, ruler: Ruler) -> String {
        let show = |l: Length| ruler.show(l).text;
        let many = if self.in_all() > 1 { format!("{} × ", self.in_all()) } else { String::new() };
        match self.what {
            TabKind::Button => format!("{many}{} across", show(self.width)),
            _ => {
                format!("{many}{} × {}, {}", show(self.width), show(self.length), self.at.answer().name.to_lowercase())
            }
        }
    }

    fn sides(&self) -> Vec<Side> {
        vec![self.wall]
    }

    fn suit(&mut self, walls: &[Wall]) {
        let Some(wall) = walls.iter().find(|w| w.side == self.wall).or(walls.first()) else { return };
        self.wall = wall.side;
        if wall.sides.is_none() {
            self.at = TabAt::Face;
        }
    }

    /// A bow and a button are on the face, what hangs is in a seam.
    fn update_dependents(&mut self, key: &str, system: System) {
        if key == "what" {
            self.at = match self.what {
                TabKind::Bow | TabKind::Button | TabKind::BeltLoop => TabAt::Face,
                TabKind::RingTab => TabAt::BothSides,
                _ => TabAt::SideSeam,
            };
            let size = |eighths, tenths| default_length(system, eighths, tenths);
            (self.width, self.length) = match self.what {
                TabKind::Bow => (size(32, 100), size(56, 180)),
                TabKind::Button => (size(8, 25), self.length),
                TabKind::Wrist => (size(6, 20), size(52, 160)),
                TabKind::KeyLoop => (size(4, 15), size(32, 100)),
                TabKind::BeltLoop => (size(4, 15), size(14, 45)),
                TabKind::Loop | TabKind::RingTab => (size(4, 15), size(8, 25)),
            };
        }
    }

    fn problems(&self, on: &Ground<'_>, problems: &mut Problems) {
        if !refuse_beyond(self.clone().fields(), problems) {
            return;
        }
        let Some(wall) = on.wall(self.wall) else { return };
        problems.between("width", "width", self.width, Length::MILLIMETRE * 3, Length::CENTIMETRE * 50);
        if self.what != TabKind::Button {
            problems.between("length", "length", self.length, Length::MILLIMETRE * 5, Length::METRE * 2);
            problems.between("turn", "seam", self.turn, Length::MILLIMETRE * 3, Length::CENTIMETRE * 10);
        }
        let show = problems.show(self.length);
        if matches!(self.at, TabAt::Face | TabAt::Mouth) && on.refuse_across_a_seam(wall, "at", self.length, problems) {
            return;
        }
        match self.at {
            TabAt::Mouth if wall.caught.is_none() => {
                let text = format!("{}, {show} long: no open mouth is there to catch it.", on.name);
                problems.refuse("at", self.length, text);
            }
            TabAt::SideSeam | TabAt::BothSides if wall.sides.is_none() => {
                let text = format!("{}, {show} long: this wall has no side seam to catch it.", on.name);
                problems.refuse("at", self.length, text);
            }
            TabAt::SideSeam | TabAt::BothSides | TabAt::Face => {
                problems.between(
                    "below",
                    "distance below the mouth",
                    self.below,
                    (-wall.top).max(Length::ZERO),
                    wall.height,
                );
            }
            TabAt::Mouth => {}
        }
    }

    fn seen(&self, on: &Ground<'_>) -> Vec<Seen> {
        let Some(wall) = on.wall(self.wall) else { return vec![] };
        let moves = Moves { down: (self.at != TabAt::Mouth).then_some(("below", self.below)), ..Moves::default() };
        let (width, height) = match self.what {
            TabKind::Bow => (self.length, self.width),
            TabKind::Button => (self.width, self.width),
            _ if matches!(self.at, TabAt::SideSeam | TabAt::BothSides) => (self.length.min(wall.width / 3), self.width),
            _ => (self.width, self.length.min(wall.height)),
        };
        let down = if self.at == TabAt::Mouth { Length::ZERO } else { self.below };
        let middle = (wall.width - width) / 2;
        let lefts = match self.at {
            TabAt::SideSeam => vec![Length::ZERO],
            TabAt::BothSides => vec![Length::ZERO, wall.width - width],
            TabAt::Mouth | TabAt::Face => vec![middle],
        };
        let looks = Looks::Strip { cloth: self.cloth.part() };
        let one = Seen { side: self.wall, looks, left: middle, down, width, height, moves };
        lefts.into_iter().map(|left| Seen { left, ..one.clone() }).collect()
    }

    fn onto(&self, on: &Ground<'_>, draft: &mut Draft) {
        let Some(wall) = on.wall(self.wall) else { return };
        self.pieces(on, draft);
        let name = format!("{}, {}", on.name, wall.side.on());
        let mark = match self.at {
            TabAt::Face => wall.mark(name, At::Middle, self.below),
            TabAt::Mouth => Mark {
                boxes: false,
                share: false,
                name: format!("{name}, at the mouth").into(),
                distance: Length::ZERO,
                from: From::Middle,
                and: Some((Length::ZERO, if wall.upside_down { From::BaseEdge } else { From::TopEdge })),
            },
            TabAt::SideSeam | TabAt::BothSides => {
                let sides = if self.at == TabAt::BothSides { "both side edges" } else { "one side edge" };
                let level = wall.mark(name, At::Middle, self.below);
                let (distance, from) = level.and.unwrap_or((self.below, From::TopEdge));
                Mark { name: format!("{}, at {sides}", on.name).into(), distance, from, and: None, ..level }
            }
        };
        on.put_mark(draft, wall, mark);
        let hardware = match self.what {
            TabKind::RingTab => Some(("D-ring", "inside width")),
            TabKind::KeyLoop => Some(("Swivel hook", "inside width")),
            TabKind::Button => Some(("Button to cover", "across")),
            _ => None,
        };
        if let Some((name, what)) = hardware {
            let note = format!("{}, {what}", on.name.to_lowercase());
            draft.hardware.push(Hardware {
                name: name.into(),
                count: self.in_all(),
                size: Some(self.width),
                note: note.into(),
            });
        }
        let phase = if self.what == TabKind::Button { Phase::Last } else { Phase::Flat };
        draft.add_step(on.step(phase, self.step(on)));
    }
}
