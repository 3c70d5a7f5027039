//! What is added to a bag of any family: a closure at an open mouth, a key loop, ring tabs, a label. Common practice; the
//! sizes that have no field are our own choice.

use super::draft::{Draft, Hardware};
use super::field::{Field, Group, choice};
use super::order::{Phase, Step};
use super::problems::Problems;
use super::strap::{Strap, StrapMake};
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{From, Mark, Term};

choice! {
    /// What holds an open mouth together.
    Closure {
        /// Nothing.
        Open = "open", "Open", "";
        /// A magnetic snap on the lining.
        Snap = "snap", "Magnetic snap", "in the middle below the mouth, a scrap of firm backing behind it";
        /// Two ties.
        Ties = "ties", "Two ties", "caught in the mouth in the middle of front and back";
        /// A button and a loop.
        Button = "button", "Button and loop", "a loop caught in the mouth at the back, a button on the front";
    }
}

/// Additions to a bag.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Extras {
    /// What holds an open mouth together.
    pub closure: Closure,
    /// How long each tie is when finished.
    pub tie_length: Length,
    /// A loop for keys, caught in a side seam of the lining.
    pub key_loop: bool,
    /// Tabs with D-rings in both side seams.
    pub ring_tabs: bool,
    /// A label on the front.
    pub label: bool,
}

/// Where they go.
pub(super) struct Place {
    /// Id of the panel that is seen in front.
    pub outer: &'static str,
    /// From that panel's top raw edge to the finished mouth.
    pub outer_top: Length,
    /// The same of the lining; nothing when there is none.
    pub lining_top: Option<Length>,
    /// Finished height of the face.
    pub face: Length,
    /// Seam that catches loops and tabs at the sides.
    pub seam: Length,
}

/// Finished width of ties, loops and tabs.
fn narrow(system: System) -> Length {
    default_length(system, 4, 12)
}

impl Extras {
    /// None of them.
    pub(super) fn default_for(system: System) -> Self {
        Self {
            closure: Closure::Open,
            tie_length: default_length(system, 80, 250),
            key_loop: false,
            ring_tabs: false,
            label: false,
        }
    }

    /// Its fields; closures only where the mouth is `open`.
    pub(super) fn fields(&mut self, open: bool) -> [Field<'_>; 5] {
        let ties = open && self.closure == Closure::Ties;
        [
            Field::choice("closure", "Held together by", Group::Closure, &mut self.closure).only_if(open),
            Field::size("tie_length", "Each tie, finished", Group::Closure, &mut self.tie_length).only_if(ties),
            Field::toggle("key_loop", "A loop for keys", Group::Extras, &mut self.key_loop),
            Field::toggle("ring_tabs", "Tabs with D-rings in the side seams", Group::Extras, &mut self.ring_tabs),
            Field::toggle("label", "A label on the front", Group::Extras, &mut self.label),
        ]
    }

    /// What cannot stand.
    pub(super) fn problems(&self, problems: &mut Problems) {
        if self.closure == Closure::Ties {
            let (least, most) = (Length::CENTIMETRE * 8, Length::METRE);
            problems.between("tie_length", "tie", self.tie_length, least, most);
        }
    }

    /// Adds what there is to `draft`.
    pub(super) fn onto(&self, draft: &mut Draft, place: &Place, open: bool, ruler: Ruler) {
        let system = ruler.system();
        let (width, inch) = (narrow(system), default_length(system, 8, 25));
        let strip = Strap { make: StrapMake::FoldedInFour, width, turn: place.seam };
        let closure = if open { self.closure } else { Closure::Open };
        let mut add = |id, name, count, terms: Vec<Term>| {
            draft.pieces.extend(strip.made(id, name, count, terms, ruler).0);
        };
        let caught = |times| Term::times("caught in the seam", times, place.seam + inch, "seam_side");
        match closure {
            Closure::Open | Closure::Snap => {}
            Closure::Ties => {
                let knot = Term::once("turned in at its end", width, "closure");
                add("tie", "Tie", 2, vec![Term::once("finished", self.tie_length, "tie_length"), caught(1), knot]);
            }
            Closure::Button => {
                // Over a button of an inch: its width twice and its thickness.
                let round = Term::once("over a button of 1 in (2.5 cm)", inch * 5 / 2, "closure");
                add("button-loop", "Button loop", 1, vec![round, caught(2)]);
            }
        }
        if self.key_loop {
            let hang = Term::times("hangs down, doubled", 2, inch * 4, "key_loop");
            add("key-loop", "Key loop", 1, vec![hang, caught(2)]);
        }
        if self.ring_tabs {
            add("ring-tab", "Ring tab", 2, vec![Term::times("round the ring", 2, inch, "ring_tabs"), caught(2)]);
        }
        let middle = |name, down| Mark {
            boxes: false,
            share: false,
            name,
            distance: Length::ZERO,
            from: From::Middle,
            and: Some((down, From::TopEdge)),
        };
        if closure == Closure::Snap {
            let inside = place.lining_top.map_or((place.outer, place.outer_top), |top| ("lining-panel", top));
            let down = (inside.1 + inch * 3 / 2).max(inch * 3 / 2);
            mark(draft, inside.0, middle("magnetic snap, its centre".into(), down));
        }
        if closure == Closure::Button {
            mark(draft, place.outer, middle("button, its centre".into(), (place.outer_top + inch * 2).max(inch)));
        }
        if self.ring_tabs {
            let tab = Mark {
                boxes: false,
                share: false,
                name: "ring tab, caught in both side seams".into(),
                distance: (place.outer_top + inch).max(inch),
                from: From::TopEdge,
                and: None,
            };
            mark(draft, place.outer, tab);
        }
        if self.label {
            mark(draft, place.outer, middle("label, its centre".into(), place.outer_top + place.face / 2));
        }
        let bought = |name, count, note: &'static str, size| Hardware { name, count, size, note: note.into() };
        if closure == Closure::Snap {
            draft.hardware.push(bought(
                "Magnetic snap".into(),
                1,
                "solid surface, fingers clear, eyes protected when it is set",
                None,
            ));
        }
        if closure == Closure::Button {
            draft.hardware.push(bought("Button".into(), 1, "about 1 in (2.5 cm)", None));
        }
        if self.key_loop {
            draft.hardware.push(bought("Swivel hook".into(), 1, "for the key loop", Some(width)));
        }
        if self.ring_tabs {
            draft.hardware.push(bought("D-ring".into(), 2, "for the ring tabs, inside width", Some(width)));
        }
        let small = [
            (closure == Closure::Ties, "the ties"),
            (closure == Closure::Button, "the button loop"),
            (self.key_loop, "the key loop"),
            (self.ring_tabs, "the ring tabs"),
        ];
        let names: Vec<&str> = small.into_iter().filter(|(is, _)| *is).map(|(_, name)| name).collect();
        if !names.is_empty() {
            let text = format!("Make {}: folded in four, stitched along both edges.", names.join(", "));
            draft.add_step(Step::new(Phase::Small, "extras", text));
        }
        if self.label {
            let text = "Sew the label on the front before anything is joined.";
            draft.add_step(Step::new(Phase::Flat, "label", text));
        }
    }
}

fn mark(draft: &mut Draft, id: &str, mark: Mark) {
    // What is pieced or split has no such panel: the mark goes on what stands in front.
    let front = if draft.piece("front-panel").is_some() && id == "outer-panel" { "front-panel" } else { id };
    if let Some(piece) = draft.pieces.iter_mut().find(|p| p.id == front) {
        piece.marks.push(mark);
    }
}
