//! Notions in the cupboard: what is there of zips, rings, webbing and the like, their ledgers, and what of them lies with a
//! bag.

use super::App;
use super::cut_list::system_of;
use super::ledger::{EntryView, now, told};
use super::problem::{ApiError, ApiErrorBody, Asked, At, Body};
use super::stretch::Stretch;
use crate::laying::Keep;
use crate::view::{DrawingView, ProjectView};
use crate::work::{A_REQUEST, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::ledger::What;
use bofta_core::measure::Length;
use bofta_core::name;
use bofta_core::notions::{Amount, Entry, Fits, Ledger, Need, Notion, OfBag, Why};
use bofta_core::project::Project;
use bofta_formats::draw::notion_on_shelf;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Pixels of an inch, as of the cloths.
const SCALE: f64 = 3.4;

/// A notion in the cupboard.
#[derive(Debug, Serialize, ToSchema)]
pub struct NotionView {
    pub id: String,
    /// `D-ring, 1 in`.
    pub label: String,
    /// It is kept by the length.
    pub by_length: bool,
    /// Where it is kept; may be empty.
    pub place: String,
    /// `12`, or `60 in, 14 in`; `none`.
    pub there: String,
    /// The same, as it is typed.
    pub typed: String,
    /// What lies with bags, a line each.
    pub with_bags: Vec<String>,
    /// Newest first.
    pub entries: Vec<EntryView>,
    /// At the scale of all that is there.
    pub drawing: Option<DrawingView>,
    /// Why it cannot be used.
    pub unreadable: Option<String>,
}

/// A stretch of the notions.
#[derive(Debug, Serialize, ToSchema)]
pub struct NotionsView {
    pub notions: Vec<NotionView>,
    /// How many there are of what was looked for.
    pub found: u32,
    /// How many there are in all.
    pub total: u32,
}

fn shown(id: &str, ledger: &Ledger) -> NotionView {
    let (notion, there) = (&ledger.notion, ledger.entries.there());
    NotionView {
        id: id.to_owned(),
        label: notion.label(),
        by_length: notion.by_length.is_some(),
        place: notion.place.clone(),
        there: there.tell(notion),
        typed: if there.is_none() { String::new() } else { there.exactly(notion) },
        with_bags: ledger
            .entries
            .with_bags()
            .iter()
            .map(|(bag, a)| format!("{} with {}", a.tell(notion), bag.name))
            .collect(),
        entries: told(&ledger.entries, |e| ledger.tell(e)),
        drawing: Some(notion_on_shelf(notion, &there, SCALE / Length::INCH.0 as f64).into()),
        unreadable: None,
    }
}

/// The notions in the cupboard, a stretch of them: those whose name, size or place holds what is looked for.
#[utoipa::path(get, path = "/api/notions", params(Stretch), responses((status = 200, body = NotionsView)))]
pub async fn notions(State(app): State<App>, Asked(asked): Asked<Stretch>) -> Result<Json<NotionsView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let all = work.store.ledgers().map_err(|e| ApiError::from_store(work, e))?;
        let total = all.len() as u32;
        let named: Vec<_> = all
            .into_iter()
            .map(|(id, ledger)| {
                let said = ledger.as_ref().map(|l| format!("{} {}", l.notion.label(), l.notion.place));
                (said.unwrap_or_else(|_| id.clone()), id, ledger)
            })
            .collect();
        let (found, here) = asked.of(named, |(said, ..)| said)?;
        let view = |(_, id, ledger): &(String, String, Result<Ledger, bofta_store::StoreError>)| match ledger {
            Ok(ledger) => shown(id, ledger),
            Err(why) => NotionView {
                id: id.clone(),
                label: id.clone(),
                by_length: false,
                place: String::new(),
                there: String::new(),
                typed: String::new(),
                with_bags: vec![],
                entries: vec![],
                drawing: None,
                unreadable: Some(why.to_string()),
            },
        };
        Ok(Json(NotionsView { notions: here.iter().map(view).collect(), found, total }))
    })
    .await
}

/// A notion that comes into the cupboard.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewNotion {
    /// `piece`, or the key of what it is cut off: `webbing`, `cord`, `tape`, `zip`.
    pub kind: String,
    /// What it is called; may be empty of what is kept by the length.
    #[serde(default)]
    pub name: String,
    /// The opening of a ring, the teeth of a zip, the width of webbing; empty where that does not matter.
    #[serde(default)]
    pub size: String,
    /// A count, or lengths with commas between them.
    pub amount: String,
    #[serde(default)]
    pub place: String,
    /// `in` or `cm`: what its sizes are told in.
    pub system: String,
}

/// Puts a notion in; more of one that is there already is laid to it.
#[utoipa::path(post, path = "/api/notions", request_body = NewNotion,
    responses((status = 200, body = NotionView), (status = 422, body = ApiErrorBody)))]
pub async fn put_notion_in(State(app): State<App>, Body(new): Body<NewNotion>) -> Result<Json<NotionView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let fields = |problem| ApiError::fields(vec![problem]);
        let from_store = |e| ApiError::from_store(work, e);
        let system = system_of(&new.system)?;
        let notion = Notion::read(&new.kind, &new.name, &new.size, &new.place, system).map_err(fields)?;
        let came = notion.read_amount("amount", &new.amount).map_err(fields)?;
        let entry = Entry { at: now(), why: Why::PutIn, came, went: Amount::default() };
        let plain = notion.label().to_lowercase().replace(|c: char| !c.is_alphanumeric(), "-");
        let keys = std::iter::once(plain.clone()).chain((2..).map(|n| format!("{plain}-{n}")));
        let new = (Ledger::new(notion.clone()), keys);
        let put_in = work.store.put_in(
            |known| known.is_like(&notion),
            new,
            |ledger| {
                let mut next = ledger.with(entry)?;
                if !notion.place.is_empty() {
                    next.notion.place.clone_from(&notion.place);
                }
                Ok(next)
            },
        );
        let (id, ledger) = put_in.map_err(from_store)?;
        Ok(Json(shown(&id, &ledger.map_err(fields)?)))
    })
    .await
}

fn recorded(
    work: &Work,
    id: &str,
    outcome: Result<Option<bofta_store::Recorded>, bofta_store::StoreError>,
) -> Result<Json<NotionView>, ApiError> {
    match outcome.map_err(|e| ApiError::from_store(work, e))? {
        None => Err(no_notion(id)),
        Some(Err(problem)) => Err(ApiError::fields(vec![problem])),
        Some(Ok(ledger)) => Ok(Json(shown(id, &ledger))),
    }
}

fn no_notion(id: &str) -> ApiError {
    let message = format!("There is no “{}” in the cupboard.", name::clean(id));
    ApiError::new(StatusCode::NOT_FOUND, message)
}

/// A change of a notion.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NotionChange {
    pub what: What,
    /// An amount, the number of an entry, or a place.
    pub value: String,
}

/// Changes what is there of a notion, by an entry in its ledger, or where it is kept.
#[utoipa::path(post, path = "/api/notions/{id}", params(("id" = String, Path)), request_body = NotionChange,
    responses((status = 200, body = NotionView), (status = 404, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn change_notion(
    State(app): State<App>,
    At(id): At<String>,
    Body(change): Body<NotionChange>,
) -> Result<Json<NotionView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let value = change.value.as_str();
        let outcome = work.store.record(&id, |ledger| {
            let amount = || ledger.notion.read_amount("value", value);
            let entry = |why, came, went| Entry { at: now(), why, came, went };
            match change.what {
                What::PutIn => ledger.with(entry(Why::PutIn, amount()?, Amount::default())),
                What::ThrowAway => ledger.with(entry(Why::ThrownAway, Amount::default(), amount()?)),
                What::Correct if matches!(value.trim(), "none" | "0") => ledger.corrected_to(&Amount::default(), now()),
                What::Correct => ledger.corrected_to(&amount()?, now()),
                What::TakeBack => ledger.with(Entry::back(value.trim().parse().unwrap_or(0), now())),
                What::Place => {
                    let mut next = ledger.clone();
                    next.notion.set_place(value).map(|()| next)
                }
            }
            // What is typed here has one field.
            .map_err(|p| bofta_core::FieldProblem { field: "value".into(), ..p })
        });
        recorded(work, &id, outcome)
    })
    .await
}

/// Forgets a notion of which nothing is left, with its ledger.
#[utoipa::path(delete, path = "/api/notions/{id}", params(("id" = String, Path)),
    responses((status = 204), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn forget_notion(State(app): State<App>, At(id): At<String>) -> Result<StatusCode, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let mut label = String::new();
        let deleted = work.store.forget_notion(&id, |ledger| {
            label = ledger.notion.label();
            ledger.entries.there().is_none() && ledger.entries.with_bags().is_empty()
        });
        match deleted.map_err(from_store)? {
            None => Err(no_notion(&id)),
            Some(true) => Ok(StatusCode::NO_CONTENT),
            Some(false) => {
                let message =
                    format!("You still have {label}, or a bag has it. Remove it or use it before you delete it here.");
                Err(ApiError::new(StatusCode::CONFLICT, message))
            }
        }
    })
    .await
}

/// What of the cupboard would do for one line of a bag's purchase.
#[derive(Debug, Serialize, ToSchema)]
pub struct ForLine {
    /// What the line needs, to be sent back as it is.
    pub need: Need,
    pub offers: Vec<Offer>,
}

/// A notion of the cupboard beside a line of the purchase.
#[derive(Debug, Serialize, ToSchema)]
pub struct Offer {
    pub notion: String,
    /// `Zip, 14 in`.
    pub label: String,
    pub place: String,
    /// What is there, not with any bag.
    pub there: String,
    /// `2 in longer: it is shortened`.
    pub fits: Option<String>,
    /// What may be laid with the bag of it.
    pub take: Vec<TakeView>,
    /// What lies with the bag.
    pub with_bag: Option<String>,
    /// By the length, what the plan leaves of that.
    pub left: String,
}

/// So much that may be taken.
#[derive(Debug, Serialize, ToSchema)]
pub struct TakeView {
    /// `2`, `60 in`.
    pub text: String,
    /// As it is sent.
    pub amount: String,
}

/// The cupboard beside a bag's purchase, line by line.
#[derive(Debug, Serialize, ToSchema)]
pub struct ForBag {
    /// As the lines by the piece stand.
    pub hardware: Vec<ForLine>,
    /// As the lines by the length stand.
    pub reels: Vec<ForLine>,
    /// What lies with the bag and no line needs any more.
    pub idle: Vec<Offer>,
}

/// What of the cupboard would do for what a bag needs, and what lies with it.
#[utoipa::path(get, path = "/api/projects/{id}/notions", params(("id" = String, Path)),
    responses((status = 200, body = ForBag), (status = 404, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn notions_for(State(app): State<App>, At(id): At<String>) -> Result<Json<ForBag>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let project = work.project(&id)?.project;
        let all = work.store.ledgers().map_err(|e| ApiError::from_store(work, e))?;
        let readable = all.iter().filter_map(|(id, l)| l.as_ref().ok().map(|l| (id.as_str(), l)));
        for_bag(&id, &project, &readable.collect::<Vec<_>>()).map(Json)
    })
    .await
}

fn for_bag(id: &str, project: &Project, all: &[(&str, &Ledger)]) -> Result<ForBag, ApiError> {
    let planned = project.plan().map_err(ApiError::fields)?;
    let mut shown: Vec<&str> = vec![];
    let mut line = |need: Need, missing: u32, left: &dyn Fn(&Ledger) -> String| {
        let mut offers: Vec<(Fits, Offer)> = vec![];
        for (key, ledger) in all {
            let lies = ledger.entries.need_of(id) == Some(&need) && !ledger.entries.with_bag(id).is_none();
            let Some(fits) = need.served_by(&ledger.notion).or(lies.then_some(Fits::Just)) else { continue };
            // What lies here for another line is told there.
            let elsewhere = !ledger.entries.with_bag(id).is_none() && !lies;
            let one = offer_of(id, key, ledger, (fits, if elsewhere { 0 } else { missing }), lies, left);
            if lies {
                shown.push(key);
            }
            if one.with_bag.is_some() || !one.take.is_empty() {
                offers.push((fits, one));
            }
        }
        offers.sort_by_key(|(fits, _)| *fits);
        ForLine { need, offers: offers.into_iter().map(|(_, offer)| offer).collect() }
    };
    let none = |_: &Ledger| String::new();
    let hardware = project
        .by_the_piece(&planned.draft.hardware)
        .into_iter()
        .map(|l| line(Need::of(l.needed), l.buy, &none))
        .collect();
    let reels = project
        .reels(&planned.draft.goods)
        .into_iter()
        .map(|reel| {
            // Lengths from the cupboard follow those that were typed.
            let kit = reel.at_hand.iter().zip(&reel.plan.owned).skip(reel.typed.len());
            let rest = kit.map(|(whole, cuts)| *whole - cuts.iter().copied().sum::<Length>());
            let rest = Amount::lengths(rest.filter(|l| *l > Length::ZERO).collect());
            let left = |ledger: &Ledger| if rest.is_none() { String::new() } else { rest.tell(&ledger.notion) };
            let need = Need::Lengths { kind: reel.kind, width: reel.width };
            line(need, u32::from(reel.bought() > Length::ZERO), &left)
        })
        .collect();
    let idle = all
        .iter()
        .filter(|(key, ledger)| !shown.contains(key) && !ledger.entries.with_bag(id).is_none())
        .map(|(key, ledger)| offer_of(id, key, ledger, (Fits::Just, 0), true, &none))
        .collect();
    Ok(ForBag { hardware, reels, idle })
}

fn offer_of(
    bag: &str,
    key: &str,
    ledger: &Ledger,
    (fits, missing): (Fits, u32),
    lies: bool,
    left: &dyn Fn(&Ledger) -> String,
) -> Offer {
    let (notion, there) = (&ledger.notion, ledger.entries.there());
    let one = |amount: Amount| TakeView { text: amount.tell(notion), amount: amount.exactly(notion) };
    let take = match (missing, notion.by_length) {
        (0, _) => vec![],
        (_, None) => match there.pieces.min(missing) {
            0 => vec![],
            some => vec![one(Amount::pieces(some))],
        },
        (_, Some(_)) => {
            let mut lengths = there.lengths.clone();
            lengths.dedup();
            lengths.into_iter().map(|l| one(Amount::lengths(vec![l]))).collect()
        }
    };
    let with = ledger.entries.with_bag(bag);
    Offer {
        notion: key.to_owned(),
        label: notion.label(),
        place: notion.place.clone(),
        there: there.tell(notion),
        fits: match fits {
            Fits::Just => None,
            Fits::Longer(by) => {
                let by = notion.ruler().show(by.round_to(notion.ruler().step())).text;
                Some(format!("{by} {} longer, so shorten it", notion.system.symbol()))
            }
        },
        take,
        with_bag: (lies && !with.is_none()).then(|| with.tell(notion)),
        left: if lies { left(ledger) } else { String::new() },
    }
}

/// What is done with a notion for a bag.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum ForBagWhat {
    /// So much is laid with the bag.
    Take,
    /// All that lies with it goes back as it was.
    PutBack,
    /// The bag is sewn: all that lies with it is in it, but for what is left.
    Used,
}

/// A change of what lies with a bag.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LayWith {
    pub what: ForBagWhat,
    /// How much is taken, or lengths that are left; may be empty of anything else.
    #[serde(default)]
    pub amount: String,
    /// What of the bag it is for, where it is taken.
    #[serde(default)]
    pub need: Option<Need>,
}

/// Lays a notion with a bag, puts it back, or says that it is used. Two bags never have the same.
#[utoipa::path(post, path = "/api/projects/{id}/notions/{notion}", params(("id" = String, Path), ("notion" = String, Path)),
    request_body = LayWith, responses((status = 200, body = ProjectView), (status = 404, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn lay_notion_with(
    State(app): State<App>,
    At((id, notion)): At<(String, String)>,
    Body(change): Body<LayWith>,
) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let project = work.project(&id)?.project;
        let bag = OfBag { project: id.clone(), name: project.name.clone() };
        let outcome = work.store.record(&notion, |ledger| {
            let entry = |why, came, went| Entry { at: now(), why, came, went };
            let with = ledger.entries.with_bag(&id);
            match change.what {
                ForBagWhat::Take => {
                    let went = ledger.notion.read_amount("amount", &change.amount)?;
                    let need = change.need.clone().filter(|need| need.served_by(&ledger.notion).is_some());
                    let need = need.ok_or_else(|| {
                        let message = format!("{} doesn’t fit what this line needs.", ledger.notion.label());
                        bofta_core::FieldProblem::new("need", &change.amount, message)
                    })?;
                    ledger.with(entry(Why::Taken { bag, need }, Amount::default(), went))
                }
                ForBagWhat::PutBack => ledger.with(entry(Why::PutBack { bag }, with, Amount::default())),
                ForBagWhat::Used => {
                    let left = match change.amount.trim() {
                        "" | "none" => Amount::default(),
                        typed => ledger.notion.read_amount("amount", typed)?,
                    };
                    ledger.with(entry(Why::Used { bag }, left, with))
                }
            }
        });
        let _kept = recorded(work, &notion, outcome)?;
        work.view(&work.project(&id)?, None, Keep::Yes)
    })
    .await
}
