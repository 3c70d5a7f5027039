//! The OpenAPI document: what the code says of each call, completed by what may come of any.

use super::problem::ApiErrorBody;
use axum::http::StatusCode;
use utoipa::OpenApi as _;
use utoipa::openapi::path::{Operation, PathItem};
use utoipa::openapi::{ContentBuilder, OpenApi, Ref, RefOr, ResponseBuilder};

#[derive(utoipa::OpenApi)]
#[openapi(
    info(title = "Bofta", description = "The server's interface to its own application."),
    servers((url = "/", description = "This server.")),
    components(schemas(ApiErrorBody))
)]
struct Document;

/// What may come of any call, whatever it is about.
const ALWAYS: [(u16, &str); 7] = [
    (400, "The path, the query or the body cannot be read."),
    (403, "Another site’s page made this request."),
    (405, "This address does not take that method."),
    (421, "The server was asked under a name that is not its own."),
    (500, "Something went wrong in the program."),
    (503, "The database or a turn at computing cannot be had just now: try again."),
    (507, "The disk is full: nothing more can be kept."),
];
/// What may come of a call with a body.
const WITH_A_BODY: [(u16, &str); 3] = [
    (413, "The body is too large."),
    (415, "The body is not of the kind that is read."),
    (422, "A field is not valid."),
];
/// What may come of a call about one project or cloth.
const ABOUT_ONE: [(u16, &str); 3] = [
    (404, "There is no such thing."),
    (409, "The request conflicts with the present state."),
    (422, "The stored document can’t be read, or a field is not valid."),
];

/// The document before any call is in it.
pub(super) fn begun() -> OpenApi {
    Document::openapi()
}

/// The document with every status that can come, each described.
pub(super) fn completed(mut document: OpenApi) -> OpenApi {
    for (path, item) in &mut document.paths.paths {
        for operation in operations(item) {
            let body = operation.request_body.is_some();
            let one = path.contains('{');
            let asked = operation.parameters.as_ref().is_some_and(|p| !p.is_empty());
            let more = ALWAYS.iter().chain(WITH_A_BODY.iter().filter(|_| body)).chain(ABOUT_ONE.iter().filter(|_| one));
            for (status, text) in more.chain(WITH_A_BODY[2..].iter().filter(|_| asked)) {
                refusal(operation, *status, text);
            }
            for (status, response) in &mut operation.responses.responses {
                if let RefOr::T(response) = response
                    && response.description.is_empty()
                {
                    let code = status.parse().ok().and_then(|s: u16| StatusCode::from_u16(s).ok());
                    response.description = code.and_then(|c| c.canonical_reason()).unwrap_or("Answer").to_owned();
                }
            }
        }
    }
    document
}

fn refusal(operation: &mut Operation, status: u16, text: &str) {
    operation.responses.responses.entry(status.to_string()).or_insert_with(|| {
        let content = ContentBuilder::new().schema(Some(Ref::from_schema_name("ApiErrorBody"))).build();
        RefOr::T(ResponseBuilder::new().description(text).content("application/json", content).build())
    });
}

fn operations(item: &mut PathItem) -> impl Iterator<Item = &mut Operation> {
    [&mut item.get, &mut item.post, &mut item.put, &mut item.delete, &mut item.patch].into_iter().flatten()
}
