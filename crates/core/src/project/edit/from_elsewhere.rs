//! What comes into a bag from elsewhere: cloths out of the cupboard, or as what another bag leaves, and the house's own names
//! of pre-cuts.

use crate::FieldProblem;
use crate::cloth::{OwnCut, Things, in_sizes};
use crate::ledger::OfBag;
use crate::project::{ClothField, Edit, LeftOf, LeftOver, Project, ProjectCloth};

impl Edit {
    /// The same, sizes in the place of the names of `own` pre-cuts where it says what there is of a cloth.
    #[must_use]
    pub fn in_sizes(mut self, own: &[OwnCut]) -> Self {
        if let Self::Cloth { field: ClothField::AtHand, value: said, .. }
        | Self::LayDown { text: said }
        | Self::PutRight { text: said, .. } = &mut self
        {
            *said = in_sizes(said, own);
        }
        self
    }
}

impl Project {
    /// With `cloth`, known from the cupboard or another bag: parts that have none and suit it are cut from it. Also what
    /// the change is called.
    ///
    /// # Errors
    /// There is a cloth of that name already, or no room for another one; cutting has begun.
    pub fn with_cloth(&self, cloth: &ProjectCloth) -> Result<(Self, String), Vec<FieldProblem>> {
        self.may_change()?;
        let mut next = self.clone();
        let label = next.put_cloth(cloth.for_project().sold_in(self.system)).map_err(|p| vec![p])?;
        next.plan()?;
        Ok((next, label))
    }

    /// With what the bag `of` leaves of one of its cloths, as a cloth of this bag; taken again, it is put in the place of
    /// what was taken before. Where another cloth has its name it is called after that bag too.
    ///
    /// # Errors
    /// As [`Project::with_cloth`]; nothing of it is worth keeping.
    pub fn with_left_of(&self, of: &OfBag, left: &LeftOver) -> Result<(Self, String), Vec<FieldProblem>> {
        if left.kept.is_empty() {
            let message = format!("{} leaves nothing of {} that is worth keeping.", of.name, left.cloth.name);
            return Err(vec![FieldProblem::new("cloth", &left.cloth.name, message)]);
        }
        if let Some((known, _)) = self.taken_of(&of.project, left) {
            self.may_change()?;
            let (mut again, id) = (self.clone(), known.id.clone());
            again.cloths.iter_mut().filter(|c| c.id == id).for_each(|c| c.at_hand.clone_from(&left.kept));
            let label = format!("{}: as {} leaves it", known.name, of.name);
            again.plan()?;
            return Ok((again, label));
        }
        let own = || format!("{}, left of {}", left.cloth.name, of.name);
        let name = if self.cloths.iter().any(|c| c.name == left.cloth.name) { own() } else { left.cloth.name.clone() };
        let OfBag { project, name: bag } = of.clone();
        let left_of = Some(LeftOf { project, name: bag, cloth: left.cloth.name.clone() });
        self.with_cloth(&ProjectCloth { name, at_hand: left.kept.clone(), left_of, ..left.cloth.clone() })
    }

    /// The cloth of this bag that is what the bag `of` leaves of one of its own, and whether `left` is that still.
    pub fn taken_of(&self, of: &str, left: &LeftOver) -> Option<(&ProjectCloth, bool)> {
        let of_it = |o: &LeftOf| (o.project.as_str(), o.cloth.as_str()) == (of, left.cloth.name.as_str());
        let cloth = self.cloths.iter().find(|c| c.left_of.as_ref().is_some_and(of_it))?;
        Some((cloth, Things::of(&cloth.at_hand) == Things::of(&left.kept)))
    }
}
