//! A block of cloth fused to its backing, and how the panels that are cut from it lie on it.

use crate::bag::backing::{BlockRows, ROUND_THE_BLOCK};
use crate::cloth::{Cloth, Form};
use crate::lay::{ClothLay, Job, JobPiece, Placement, Rules};
use crate::measure::{Length, System};
use crate::piece::{Mirror, Piece};
use crate::shape::{Outline, Turn};
use serde::{Deserialize, Serialize};

/// A block as a small lay of its own: the block is the cloth, the panels lie on it in rows.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Block {
    /// Id of the block of cloth among the pieces.
    pub piece: String,
    /// Its panels as a job on the block, whose id is that of the cloth the block is cut from.
    pub job: Job,
    /// Where they lie.
    pub lay: ClothLay,
}

impl Block {
    /// The block `piece`, cut from the cloth `cloth`, with panels in `rows`.
    pub fn new(piece: &Piece, cloth: &str, rows: &[BlockRows], pieces: &[Piece], system: System) -> Self {
        let (width, height) = piece.size();
        let (mut placements, mut y) = (Vec::new(), ROUND_THE_BLOCK);
        for row in rows {
            for n in 0..row.count {
                let (across, up) = (i64::from(n % row.across), i64::from(n / row.across));
                placements.push(Placement {
                    piece: row.panel.to_string(),
                    copy: n + 1,
                    x: ROUND_THE_BLOCK + row.size.0 * across,
                    y: y + row.size.1 * up,
                    turn: Turn::NONE,
                    mirrored: false,
                    on_fold: false,
                    single: false,
                });
            }
            y += row.size.1 * i64::from(row.rows);
        }
        let panel = |row: &BlockRows| {
            let panel = pieces.iter().find(|p| p.id == row.panel)?;
            let square = Outline::Rect(row.size.0, row.size.1);
            Some(JobPiece {
                id: row.panel.to_string(),
                name: panel.name.to_string(),
                count: row.count,
                outline: if panel.is_square_cut() { square } else { panel.outline() },
                grain: panel.grain,
                print: panel.print,
                mirror: Mirror::No,
                cloths: vec![cloth.to_owned()],
                any_cloth: false,
                on_print: None,
            })
        };
        let whole = Cloth { form: Form::Sheet { width, height, count: 1 }, owned: true, ..Cloth::roll(cloth, width) };
        let job = Job {
            name: piece.name.to_string(),
            units: system,
            pieces: rows.iter().filter_map(panel).collect(),
            cloths: vec![whole],
            rules: Rules::default(),
            pinned: vec![],
        };
        let lay = ClothLay {
            cloth: cloth.to_owned(),
            copy: 1,
            needed_length: height,
            buy_length: height,
            used_share: 0.0,
            placements,
            offcuts: vec![],
            bound: Length::ZERO,
            proof: None,
            through: true,
        };
        Self { piece: piece.id.to_string(), job, lay }
    }
}
