//! The tables, as the migrations make them.

diesel::table! {
    projects (id) {
        id -> Text,
        revision -> BigInt,
        position -> BigInt,
        changed_at -> BigInt,
        deleted -> Bool,
        name -> Text,
    }
}

diesel::table! {
    states (project_id, position) {
        project_id -> Text,
        position -> BigInt,
        label -> Text,
        document -> Text,
        cut_plan -> Nullable<BigInt>,
    }
}

diesel::table! {
    cloths (id) {
        id -> Text,
        document -> Text,
        name -> Text,
        put_away_at -> Nullable<BigInt>,
    }
}

diesel::table! {
    lays (project_id, job_key) {
        project_id -> Text,
        job_key -> Text,
        document -> Text,
        failed -> Nullable<Text>,
    }
}

diesel::table! {
    cards (project_id) {
        project_id -> Text,
        revision -> BigInt,
        program -> Text,
        document -> Text,
    }
}

diesel::table! {
    cut_plans (id) {
        id -> BigInt,
        project_id -> Text,
        document -> Text,
    }
}

diesel::table! {
    notions (id) {
        id -> Text,
        document -> Text,
    }
}

diesel::table! {
    notion_entries (id) {
        id -> BigInt,
        notion_id -> Text,
        project_id -> Nullable<Text>,
        document -> Text,
    }
}

diesel::table! {
    own_cuts (key) {
        key -> Text,
        document -> Text,
    }
}

diesel::table! {
    pictures (key) {
        key -> Text,
        jpeg -> Binary,
        kept_at -> BigInt,
    }
}

diesel::joinable!(states -> projects (project_id));
diesel::joinable!(cards -> projects (project_id));
diesel::allow_tables_to_appear_in_same_query!(projects, states, cards);
