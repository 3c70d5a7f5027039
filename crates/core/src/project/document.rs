//! The document and what follows from it.

use super::advice;
use super::cloth::{AT_HAND, ProjectCloth};
use super::cut_plan::CutPlan;
use super::dressing::Dressing;
use super::joins;
use super::kept_edges::PieceEdge;
use super::measured::{self, Measured};
use super::on_print::OnPrint;
use super::tries::Try;
use crate::FieldProblem;
use crate::bag::backing::{self, BlockRows};
use crate::bag::binding::Join;
use crate::bag::piecing::Patchwork;
use crate::bag::{Bag, Draft, Family, Finished, Good, GoodKind, Hardware, MadeUp, Notice};
use crate::buying::linear::{self, Reel, Sold};
use crate::buying::{ByThePiece, Missing, PiecesAtHand, by_the_piece, missing};
use crate::cloth::{Cloth, Money};
use crate::cutting::Block;
use crate::lay::{Cuts, Job, JobPiece, Lay, Rules, Stop};
use crate::measure::{Length, Ruler, ShopStep, System};
use crate::notions::Kit;
use crate::piece::{Dimension, Grain, Part, Piece, PrintRule, Term};
use crate::shape::Outline;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet, HashSet};
use std::sync::Arc;

/// Which way straps run on the cloth.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum StrapLie {
    /// Whichever takes less cloth.
    #[default]
    Either,
    /// Along the selvedge, the strong direction.
    Along,
    /// Across the width.
    Across,
}

/// How the maker wants it laid.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LayChoices {
    /// Free, or edge to edge.
    pub cuts: Cuts,
    /// The print may stand any way the grain allows.
    pub print_may_lie: bool,
    /// Which way straps run.
    pub straps: StrapLie,
    /// How strips are joined that are longer than their cloth.
    #[serde(default)]
    pub join: Join,
    /// Corners are cut out with the panels, so small pieces may lie in them. Not where cuts run edge to edge.
    #[serde(default)]
    pub in_notches: bool,
}

/// A project as it is kept.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Project {
    /// Its name.
    pub name: String,
    /// The system it is measured in.
    pub system: System,
    /// The ruler at the table.
    pub ruler: Ruler,
    /// The bag.
    pub bag: Bag,
    /// The cloths at hand or to be bought.
    pub cloths: Vec<ProjectCloth>,
    /// Cloths of each part, the first preferred.
    pub from: BTreeMap<Part, Vec<String>>,
    /// What else is said of which piece comes from which cloth.
    #[serde(default, skip_serializing_if = "Dressing::is_empty")]
    pub dressing: Dressing,
    /// How it is laid.
    pub lay: LayChoices,
    /// Steps done at the table.
    pub steps_done: u32,
    /// Keys of the steps of making that are ticked off. What is no step of the bag as it is now is remembered.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub made: BTreeSet<String>,
    /// Steps of making it that the maker wrote, after those of the bag.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub own_steps: Vec<String>,
    /// What the maker writes down about it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub notes: String,
    /// The plan that is being cut, from the first cut on; kept beside the document, not in it.
    #[serde(skip)]
    pub cutting: Option<Arc<CutPlan>>,
    /// How panels are made up, by the panel's id; a panel not named is as its family drafts it.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub made_up: BTreeMap<String, MadeUp>,
    /// Sizes measured on what is made, by the piece that was measured.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub measured: BTreeMap<String, Measured>,
    /// Pieces that the maker turned by hand, by id: how they lie instead of as they are drafted.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub turned: BTreeMap<String, Grain>,
    /// Where a motif falls on pieces that are placed on their print, by the piece's id.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub on_print: BTreeMap<String, OnPrint>,
    /// Pieces that lie with an edge on one of a scrap that is kept, by the piece's id.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub on_edge: BTreeMap<String, PieceEdge>,
    /// Ways of dressing the bag that are kept to be held beside each other.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tries: Vec<Try>,
    /// The sign prices are shown with, if one was given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub currency: Option<String>,
    /// Lengths at hand of what is sold by the length.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub lengths_at_hand: Vec<LengthsAtHand>,
    /// What is there of what is bought by the piece.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub pieces_at_hand: Vec<PiecesAtHand>,
    /// What of the cupboard lies with it: told by the ledgers there, none of it is kept here.
    #[serde(skip)]
    pub kit: Kit,
}

/// What is there of one kind and width of cord, webbing, zip or tape.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LengthsAtHand {
    /// Its kind.
    pub kind: GoodKind,
    /// Its width, if that matters.
    pub width: Option<Length>,
    /// Each piece of it, as long as it is.
    pub lengths: Vec<Length>,
}

/// What a project comes to before it is laid.
#[derive(Clone, Debug, PartialEq)]
pub struct Planned {
    /// The drafted bag, its panels made up.
    pub draft: Draft,
    /// The finished sizes, worked out back from what was drafted.
    pub finished: Vec<Finished>,
    /// The job, when every part has a cloth; else nothing.
    pub job: Option<Job>,
    /// Parts that have no cloth yet.
    pub unassigned: Vec<Part>,
    /// Blocks that are fused to their backing before panels are cut from them.
    pub blocks: Vec<Block>,
    /// The lay, once cutting has begun and it stays what it is.
    pub fixed: Option<Lay>,
    /// What keeps it from being laid.
    pub problems: Vec<FieldProblem>,
}

impl Project {
    /// A new project with a tote to start from and no cloth.
    pub fn new(name: impl Into<String>, system: System) -> Self {
        Self {
            name: name.into(),
            system,
            ruler: Ruler::default_for(system),
            bag: Family::Tote.default_for(system),
            cloths: vec![],
            from: BTreeMap::new(),
            dressing: Dressing::default(),
            lay: LayChoices::default(),
            steps_done: 0,
            made: BTreeSet::new(),
            own_steps: vec![],
            notes: String::new(),
            cutting: None,
            made_up: BTreeMap::new(),
            measured: BTreeMap::new(),
            turned: BTreeMap::new(),
            on_print: BTreeMap::new(),
            on_edge: BTreeMap::new(),
            tries: vec![],
            currency: None,
            lengths_at_hand: vec![],
            pieces_at_hand: vec![],
            kit: Kit::default(),
        }
    }

    /// An amount as it is shown here: `€ 12.50`, or `12.50` when no currency was given.
    pub fn money(&self, amount: Money) -> String {
        match &self.currency {
            Some(sign) => format!("{sign} {}", amount.show()),
            None => amount.show(),
        }
    }

    /// The cloth with `id`, or that a cloth of its job with that id is of.
    pub fn cloth(&self, id: &str) -> Option<&ProjectCloth> {
        let id = id.split(AT_HAND).next().unwrap_or(id);
        self.cloths.iter().find(|c| c.id == id)
    }

    /// What `lay` of `job`, this project's, leaves out: more of a cloth is bought off the roll.
    pub fn missing(&self, job: &Job, lay: &Lay, stop: &Stop) -> Option<Missing> {
        let roll = |id: &str| {
            let of = self.cloth(id)?;
            let roll = of.roll();
            // A job that knows where the print's motifs lie was worked out with what that takes.
            let Some(known) = job.cloths.iter().find(|c| c.repeat.is_some() && self.cloth(&c.id) == Some(of)) else {
                return Some(roll);
            };
            Some(Cloth {
                repeat: known.repeat,
                selvedge: roll.selvedge.max(known.selvedge),
                trim: roll.trim.max(known.trim),
                ..roll
            })
        };
        missing(job, lay, &roll, stop)
    }

    /// Whether the cloth `id` of its job is there already, not to be bought.
    pub fn is_at_hand(&self, id: &str) -> bool {
        id.contains(AT_HAND) || self.cloth(id).is_some_and(|c| !c.is_bought())
    }

    /// The cloth a part comes from in the first place.
    pub fn cloth_of(&self, part: Part) -> Option<&ProjectCloth> {
        self.from.get(&part)?.iter().find_map(|id| self.cloth(id))
    }

    /// What was typed as being at hand of a kind and width of what is sold by the length.
    pub fn typed_lengths(&self, kind: GoodKind, width: Option<Length>) -> &[Length] {
        let same = |l: &&LengthsAtHand| (l.kind, l.width) == (kind, width);
        self.lengths_at_hand.iter().find(same).map_or(&[], |l| &l.lengths)
    }

    /// What `goods` come to: cut from what is at hand, the rest bought off the reel.
    pub fn reels(&self, goods: &[Good]) -> Vec<Reel> {
        let sold = Sold::Reel(ShopStep::default_for(self.system));
        let reel = |(kind, width, cuts): (GoodKind, Option<Length>, Vec<Length>)| {
            let typed = self.typed_lengths(kind, width).to_vec();
            let at_hand: Vec<Length> = typed.iter().copied().chain(self.kit.lengths(kind, width)).collect();
            Reel { kind, width, plan: linear::plan(&cuts, &at_hand, sold), at_hand, typed }
        };
        linear::together(goods).into_iter().map(reel).collect()
    }

    /// How many of what is `needed` were typed as being there.
    pub fn typed_pieces(&self, needed: &Hardware) -> u32 {
        let same = |p: &&PiecesAtHand| p.name == needed.name && p.size == needed.size;
        self.pieces_at_hand.iter().filter(same).map(|p| p.count).sum()
    }

    /// What `hardware` comes to: taken from what is there, the rest bought.
    pub fn by_the_piece<'a>(&self, hardware: &'a [Hardware]) -> Vec<ByThePiece<'a>> {
        let all: Vec<PiecesAtHand> = self.pieces_at_hand.iter().cloned().chain(self.kit.pieces()).collect();
        by_the_piece(hardware, &all)
    }

    /// The patches of the panel `piece`, if it is in patches that are alike, and whether the bag itself makes it up so.
    pub fn patchwork_of(&self, piece: &str) -> Option<(Patchwork, bool)> {
        let own = self.bag.own_patchwork().filter(|(panel, _)| *panel == piece).map(|(_, own)| (own, true));
        let made = self.made_up.get(piece).map(|m| (m.patchwork.clone(), false));
        made.or(own).filter(|(patchwork, _)| patchwork.is_even())
    }

    /// The bag drafted and its panels made up, before anything is measured; and the finished sizes it comes to.
    pub(super) fn drafted(&self) -> Result<(Draft, Vec<Finished>), Vec<FieldProblem>> {
        let mut draft = self.bag.draft(self.ruler)?;
        let finished = self.bag.finished_from_cut(&draft);
        let walls = self.bag.walls(self.ruler);
        for (id, made) in &self.made_up {
            made.apply(&mut draft, id, &walls, self.ruler).map_err(|p| vec![p])?;
        }
        draft.speak_in(self.system);
        Ok((draft, finished))
    }

    /// Drafts the bag and states the lay job; once cutting has begun, what it was when it began.
    ///
    /// # Errors
    /// The bag's fields that cannot stand.
    pub fn plan(&self) -> Result<Planned, Vec<FieldProblem>> {
        match &self.cutting {
            Some(plan) => Ok(plan.planned()),
            None => self.drafted().map(|(draft, finished)| self.plan_of(draft, finished)),
        }
    }

    /// What follows from the bag as drafted: measures, joins and blocks, and the job.
    pub(super) fn plan_of(&self, mut draft: Draft, finished: Vec<Finished>) -> Planned {
        measured::propagate(&mut draft.pieces, &self.measured, &self.bag.finished_sizes(), self.ruler);
        let impossible = measured::impossible(&draft.pieces, &self.measured, self.ruler);
        for piece in draft.pieces.iter_mut().filter(|p| p.spans) {
            if let Some(cloth) = self.cloth_for(piece) {
                let across = cloth.widest();
                piece.width =
                    Dimension { size: across, terms: vec![Term::once("right across the cloth", across, "rows")] };
            }
        }
        for piece in &mut draft.pieces {
            if let Some(grain) = self.turned.get(piece.id.as_ref()) {
                piece.grain = *grain;
            }
        }
        joins::join(self, &mut draft);
        self.arrange_blocks(&mut draft);
        let advice = advice::advice(self, &draft).into_iter().chain(self.told_of_print(&draft));
        let advice: Vec<Notice> = advice.collect();
        draft.notices.extend(advice);
        // Nothing is laid of what cannot be cut.
        if let Some(problem) = impossible {
            let problems = vec![problem];
            return Planned { draft, finished, job: None, unassigned: vec![], blocks: vec![], fixed: None, problems };
        }
        let unassigned: Vec<Part> = Part::ALL
            .into_iter()
            .filter(|part| {
                draft.pieces.iter().any(|p| p.part == *part && p.when.is_laid() && self.cloth_for(p).is_none())
            })
            .collect();
        if !unassigned.is_empty() {
            return Planned { draft, finished, job: None, unassigned, blocks: vec![], fixed: None, problems: vec![] };
        }
        // A list without rows is not laid yet; that is no mistake.
        if draft.pieces.is_empty() {
            return Planned { draft, finished, job: None, unassigned, blocks: vec![], fixed: None, problems: vec![] };
        }
        let mut job = self.job(&draft);
        if !self.on_edge.is_empty() {
            let (pins, all) = self.pins_on_edges(&job);
            job.pinned = pins;
            draft.notices.extend(self.told_of_edges(&draft, &job, all));
        }
        let problem = self.only_scraps_of_print(&draft, &job).or_else(|| self.no_room_for_print(&job));
        let problem = problem.or_else(|| job.check().err());
        let problems: Vec<FieldProblem> = problem.into_iter().collect();
        let job = problems.is_empty().then_some(job);
        let blocks = self.blocks(&draft);
        Planned { draft, finished, job, unassigned, blocks, fixed: None, problems }
    }

    /// The rows of the block `block`, as many panels side by side as the narrower of its two cloths holds; nothing when
    /// it is none.
    fn block_rows(&self, draft: &Draft, block: &Piece) -> Vec<BlockRows> {
        let of = || draft.pieces.iter().filter(|p| block.block_of.contains(&p.id));
        let cloths = draft.pieces.iter().filter(|p| p.block_of == block.block_of).filter_map(|p| self.cloth_for(p));
        let widest = of().map(|p| p.width.size + Length::INCH).max().unwrap_or_default();
        let usable = cloths.map(ProjectCloth::widest).min().unwrap_or(widest);
        backing::block_rows(of(), usable)
    }

    /// The blocks of cloth, with their panels on them.
    fn blocks(&self, draft: &Draft) -> Vec<Block> {
        let of_cloth = draft.pieces.iter().filter(|p| !p.block_of.is_empty() && !p.part.is_backing());
        of_cloth
            .filter_map(|p| {
                let cloth = self.cloth_for(p)?;
                Some(Block::new(p, &cloth.id, &self.block_rows(draft, p), &draft.pieces, self.system))
            })
            .collect()
    }

    /// Brings blocks to what both their cloths are wide.
    fn arrange_blocks(&self, draft: &mut Draft) {
        for at in 0..draft.pieces.len() {
            if !draft.pieces[at].block_of.is_empty() {
                let rows = self.block_rows(draft, &draft.pieces[at]);
                let (width, height) = backing::block_size(&rows, self.ruler);
                (draft.pieces[at].width, draft.pieces[at].height) = (width, height);
            }
        }
    }

    /// The longest strap that comes in one from `cloth`, along or across it as straps may lie; nothing when more of it
    /// is bought as it is needed.
    pub(super) fn longest_strap(&self, cloth: &ProjectCloth) -> Option<Length> {
        let (across, along) = (cloth.widest(), cloth.longest());
        match self.lay.straps {
            StrapLie::Across => Some(across),
            StrapLie::Along => along,
            StrapLie::Either => along.map(|along| along.max(across)),
        }
    }

    /// The cloths of the job that what is cut from `ids` may lie on: of each what is there, and the roll if it is bought.
    fn laid_on(&self, ids: &[String]) -> Vec<Cloth> {
        ids.iter().filter_map(|id| self.cloth(id)).flat_map(|c| c.for_job(self.system)).collect()
    }

    fn job(&self, draft: &Draft) -> Job {
        // Once for each list: a cloth may be hundreds of scraps.
        let lists: HashSet<&[String]> = draft.pieces.iter().map(|p| self.cloths_for(p)).collect();
        let on: BTreeMap<&[String], Vec<Cloth>> = lists.into_iter().map(|ids| (ids, self.laid_on(ids))).collect();
        let pieces: Vec<JobPiece> = draft
            .pieces
            .iter()
            .filter(|p| p.when.is_laid())
            .map(|p| {
                let (width, height) = p.size();
                let nested = self.lay.in_notches && self.lay.cuts == Cuts::Free;
                let by_hand = self.turned.contains_key(p.id.as_ref());
                let grain = match (p.part, self.lay.straps) {
                    (Part::Straps, StrapLie::Along) if !by_hand => Grain::Length,
                    (Part::Straps, StrapLie::Across) if !by_hand => Grain::Across,
                    _ => p.grain,
                };
                JobPiece {
                    id: p.id.to_string(),
                    name: p.name.to_string(),
                    count: p.count,
                    // What no straight cut gives is laid by its outline; corners cut out later only if the maker wants.
                    outline: if nested || !p.is_square_cut() { p.outline() } else { Outline::Rect(width, height) },
                    grain,
                    print: if self.lay.print_may_lie { PrintRule::Ignore } else { p.print },
                    mirror: p.mirror,
                    cloths: self.placed_on(p, &on[self.cloths_for(p)]),
                    any_cloth: self.dressing.any.contains(&p.part),
                    on_print: self.motif_on(p),
                }
            })
            .collect();
        let used: HashSet<&str> = pieces.iter().flat_map(|p| p.cloths.iter().map(String::as_str)).collect();
        let all = self
            .cloths
            .iter()
            .flat_map(|c| c.for_job(self.system).into_iter().map(move |cloth| self.with_print(c, cloth, draft)));
        let cloths = all.filter(|c| used.contains(c.id.as_str())).collect();
        let keep = match self.system {
            System::Inches => Length::INCH * 5,
            System::Centimetres => Length::CENTIMETRE * 12,
        };
        let rules = Rules { cuts: self.lay.cuts, keep: (keep, keep), ..Rules::default() };
        Job { name: self.name.clone(), units: self.system, pieces, cloths, rules, pinned: vec![] }
    }
}

impl CutPlan {
    /// The same as a plan.
    pub fn planned(&self) -> Planned {
        let mut draft = self.draft.clone();
        if self.is_relisted() {
            draft.notices.push(Notice {
                stage: crate::bag::Stage::Cut,
                field: None,
                severity: crate::bag::Severity::Attention,
                text: "Bofta lists the cuts in a new way since you began cutting this bag. Check how many you have made: go on or undo until the drawing shows what lies on your table.".into(),
            });
        }
        Planned {
            draft,
            finished: self.finished.clone(),
            job: Some(self.job.clone()),
            unassigned: vec![],
            blocks: self.blocks.clone(),
            fixed: Some(self.lay.clone()),
            problems: vec![],
        }
    }
}
