//! Kinds of seam and what they take. Common practice.

use super::field::choice;

choice! {
    /// How the side seams are sewn.
    SeamKind {
        /// Sewn and pressed.
        Plain = "plain", "Plain", "";
        /// Sewn wrong sides together, then enclosed.
        French = "french", "French", "sewn twice, nothing frays: the whole is the width given";
        /// Edges hemmed before they are joined.
        HemmedFirst = "hemmed-first", "Hemmed first", "each edge turned twice, then seamed inside the hem";
        /// Edges overlocked.
        Overlocked = "overlocked", "Overlocked", "";
        /// Edges bound after sewing.
        Bound = "bound", "Bound", "";
    }
}
