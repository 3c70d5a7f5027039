//! Copies of a database: made while it is in use by SQLite's own online backup, kept by age, and brought back.
//!
//! A copy is written under another name, flushed to the disk and only then given its own, and the folder is flushed too:
//! after a power cut a copy is there whole or not at all.

use crate::open::examine_copy;
use crate::{Held, Store, StoreError};
use rusqlite::backup::Backup;
use rusqlite::{Connection, OpenFlags};
use std::fs::File;
use std::path::{Path, PathBuf};
use std::time::{Duration, SystemTime, UNIX_EPOCH};

/// Milliseconds of an hour, a day and a week.
const HOUR: i64 = 3_600_000;
const DAY: i64 = 24 * HOUR;
const WEEK: i64 = 7 * DAY;
/// Of each of so many hours, days and weeks by the clock (UTC) the newest copy is kept.
const KEPT: [(i64, i64); 3] = [(HOUR, 24), (DAY, 14), (WEEK, 8)];
/// The folder of copies, in the data folder.
const FOLDER: &str = "backups";
/// What the names of the database and of its copies begin with.
pub(crate) const NAME: &str = "bofta";

/// A copy that is kept.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Copied {
    /// Its file.
    pub path: PathBuf,
    /// Milliseconds since 1970.
    pub made_at: i64,
    /// Its size.
    pub bytes: u64,
}

impl Store {
    /// Copies the whole database to `to`, which must not exist, while it is in use.
    ///
    /// # Errors
    /// [`StoreError`] when the copy cannot be written; nothing of it stays then.
    pub fn backup(&self, to: &Path) -> Result<(), StoreError> {
        copy(&self.path, to)
    }

    /// Makes a copy in the folder of copies if the newest is over an hour old and something has changed since, and
    /// thins them out. Returns the copy it made.
    ///
    /// # Errors
    /// [`StoreError`] when the copy cannot be made.
    pub fn back_up_when_due(&self) -> Result<Option<PathBuf>, StoreError> {
        let folder = self.path.parent().unwrap_or(Path::new("."));
        let all = copies(folder)?;
        let wal = PathBuf::from(format!("{}-wal", self.path.display()));
        let changed = [self.path.as_path(), &wal].into_iter().filter_map(modified).max().unwrap_or(0);
        // One dated in the future, by a clock that was wrong, says nothing of when it was made.
        let newest = all.iter().find(|copy| copy.made_at <= crate::now());
        if newest.is_some_and(|newest| newest.made_at > crate::now() - HOUR || newest.made_at >= changed) {
            return Ok(None);
        }
        // An empty shelf is not worth a copy, and would be offered as one.
        if projects_in(&self.path) == Some(0) {
            return Ok(None);
        }
        let kept = folder.join(FOLDER);
        std::fs::create_dir_all(&kept).map_err(file(&kept))?;
        let made = kept.join(format!("{NAME}-{}.db", stamp()?));
        self.backup(&made)?;
        for old in too_many(&copies(folder)?, crate::now()) {
            std::fs::remove_file(&old.path).map_err(file(&old.path))?;
        }
        Ok(Some(made))
    }
}

/// The copies kept beside the database in `folder`, the newest first.
///
/// # Errors
/// [`StoreError::File`] when the folder of copies cannot be read.
pub fn copies(folder: &Path) -> Result<Vec<Copied>, StoreError> {
    let kept = folder.join(FOLDER);
    let entries = match std::fs::read_dir(&kept) {
        Ok(entries) => entries,
        Err(e) if e.kind() == std::io::ErrorKind::NotFound => return Ok(vec![]),
        Err(why) => return Err(file(&kept)(why)),
    };
    let mut found = Vec::new();
    for entry in entries {
        let path = entry.map_err(file(&kept))?.path();
        if path.extension().is_some_and(|e| e == "db")
            && let (Some(made_at), Ok(about)) = (modified(&path), path.metadata())
        {
            found.push(Copied { path, made_at, bytes: about.len() });
        }
    }
    found.sort_by_key(|c| std::cmp::Reverse(c.made_at));
    Ok(found)
}

/// How many projects are on the shelf of a copy, if it can be told.
pub fn projects_in(copy: &Path) -> Option<i64> {
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let count = "SELECT COUNT(*) FROM projects WHERE NOT deleted";
    Connection::open_with_flags(copy, flags).ok()?.query_row(count, [], |row| row.get(0)).ok()
}

/// Whether a file is named as this program names copies; others are the maker's own, and stay.
fn is_stamped(path: &Path) -> bool {
    let name = path.file_name().unwrap_or_default().to_string_lossy().into_owned();
    let stamp =
        name.strip_prefix(NAME).and_then(|rest| rest.strip_prefix('-')).and_then(|rest| rest.strip_suffix(".db"));
    // As `stamp` writes it: every figure of this is one.
    const LIKE: &str = "2000-00-00T00-00-00.000";
    stamp.is_some_and(|stamp| {
        stamp.len() == LIKE.len()
            && stamp
                .chars()
                .zip(LIKE.chars())
                .all(|(c, like)| if like.is_ascii_digit() { c.is_ascii_digit() } else { c == like })
    })
}

/// Those of `copies` (the newest first) that are not the newest of an hour, day or week that is kept. The maker's own, and
/// those dated in the future, are never among them.
fn too_many(copies: &[Copied], now: i64) -> Vec<&Copied> {
    let copies: Vec<&Copied> = copies.iter().filter(|c| is_stamped(&c.path) && c.made_at <= now).collect();
    let mut spared: Vec<i64> = copies.first().map(|c| c.made_at).into_iter().collect();
    for (length, how_many) in KEPT {
        // By the clock, not counted back from now: what is the newest of its day stays that.
        let this = now.div_euclid(length);
        for span in this - how_many + 1..=this {
            spared.extend(copies.iter().map(|c| c.made_at).find(|at| at.div_euclid(length) == span));
        }
    }
    copies.into_iter().filter(|c| !spared.contains(&c.made_at)).collect()
}

/// Puts the copy `from` in the place of the database `name` of a data folder that is held. What was there is set aside
/// under another name, which is returned.
///
/// # Errors
/// The copy is damaged, newer, or no database of Bofta; or a file cannot be moved. The database is as it was then.
pub fn restore(_held: &Held, folder: &Path, name: &str, from: &Path) -> Result<Option<PathBuf>, StoreError> {
    std::fs::metadata(from).map_err(file(from))?;
    examine_copy(from)?;
    let (present, arriving) = (folder.join(name), folder.join(format!("{name}.arriving")));
    finish_restoring(&present)?;
    remove(&arriving)?;
    copy(from, &arriving)?;
    let aside = folder.join(format!("{name}.set-aside-{}", stamp()?));
    let was_there = present.exists();
    // From here on the copy is what counts, however this ends: opening the database goes on where it was broken off.
    let note = restoring(&present);
    let part = PathBuf::from(format!("{}.part", note.display()));
    // By its name alone: the folder may be moved before it is opened again.
    let name_aside = aside.file_name().unwrap_or_default().to_string_lossy().into_owned();
    std::fs::write(&part, name_aside).map_err(file(&part))?;
    File::open(&part).and_then(|f| f.sync_all()).map_err(file(&part))?;
    std::fs::rename(&part, &note).map_err(file(&note))?;
    flush_folder(&note)?;
    finish_restoring(&present)?;
    Ok(was_there.then_some(aside))
}

/// Where it is written that a copy is being put in the place of the database, and under which name that is set aside.
fn restoring(present: &Path) -> PathBuf {
    PathBuf::from(format!("{}.restoring", present.display()))
}

/// Goes on with a restore that was broken off, if there was one: moves what was there aside, and the copy into its place.
/// Every step may have been done before.
///
/// # Errors
/// A file that cannot be moved; it is tried again the next time.
pub(crate) fn finish_restoring(present: &Path) -> Result<(), StoreError> {
    let note = restoring(present);
    let aside = match std::fs::read_to_string(&note) {
        Ok(name) => present.with_file_name(name),
        Err(e) if e.kind() == std::io::ErrorKind::NotFound => return Ok(()),
        Err(why) => return Err(file(&note)(why)),
    };
    let arriving = PathBuf::from(format!("{}.arriving", present.display()));
    if arriving.exists() {
        // Its journal belongs to it: without it the last changes would be missing.
        for ending in ["-wal", "-shm", ""] {
            let of = |path: &Path| PathBuf::from(format!("{}{ending}", path.display()));
            match std::fs::rename(of(present), of(&aside)) {
                Err(e) if e.kind() == std::io::ErrorKind::NotFound => {}
                done => done.map_err(file(&of(present)))?,
            }
        }
        std::fs::rename(&arriving, present).map_err(file(present))?;
        flush_folder(present)?;
    }
    remove(&note)?;
    flush_folder(present)
}

/// Copies a database, in use or not, to `to`, which must not exist.
fn copy(from: &Path, to: &Path) -> Result<(), StoreError> {
    if to.exists() {
        let why = std::io::Error::new(std::io::ErrorKind::AlreadyExists, "there is a file of that name already");
        return Err(file(to)(why));
    }
    let part = PathBuf::from(format!("{}.part", to.display()));
    remove(&part)?;
    let written = write_copy(from, &part);
    if written.is_err() {
        // What is half a copy is none.
        let _ = std::fs::remove_file(&part);
    }
    written?;
    std::fs::rename(&part, to).map_err(file(to))?;
    flush_folder(to)
}

fn write_copy(from: &Path, part: &Path) -> Result<(), StoreError> {
    let source = Connection::open_with_flags(from, OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX)?;
    let mut target = Connection::open(part)?;
    Backup::new(&source, &mut target)?.run_to_completion(512, Duration::from_millis(2), None)?;
    // The copy is one file, without a journal beside it.
    target.query_row("PRAGMA journal_mode = DELETE", [], |_| Ok(()))?;
    target.close().map_err(|(_, e)| e)?;
    File::open(part).and_then(|f| f.sync_all()).map_err(file(part))
}

/// A new name is on the disk once its folder is.
fn flush_folder(of: &Path) -> Result<(), StoreError> {
    let folder = of.parent().filter(|p| !p.as_os_str().is_empty()).unwrap_or(Path::new("."));
    File::open(folder).and_then(|f| f.sync_all()).map_err(file(folder))
}

fn remove(path: &Path) -> Result<(), StoreError> {
    match std::fs::remove_file(path) {
        Err(e) if e.kind() == std::io::ErrorKind::NotFound => Ok(()),
        done => done.map_err(file(path)),
    }
}

fn modified(path: &Path) -> Option<i64> {
    let at: SystemTime = path.metadata().ok()?.modified().ok()?;
    i64::try_from(at.duration_since(UNIX_EPOCH).ok()?.as_millis()).ok()
}

/// The time as it stands in a file's name, to the millisecond, UTC.
fn stamp() -> Result<String, StoreError> {
    let sql = "SELECT strftime('%Y-%m-%dT%H-%M-%f', 'now')";
    Ok(Connection::open_in_memory()?.query_row(sql, [], |row| row.get(0))?)
}

fn file(path: &Path) -> impl FnOnce(std::io::Error) -> StoreError {
    let path = path.display().to_string();
    move |why| match why.kind() {
        std::io::ErrorKind::StorageFull | std::io::ErrorKind::QuotaExceeded => StoreError::Full,
        std::io::ErrorKind::ReadOnlyFilesystem | std::io::ErrorKind::PermissionDenied => StoreError::ReadOnly,
        _ => StoreError::File { path, why },
    }
}

#[cfg(test)]
mod tests {
    use super::{Copied, DAY, HOUR, WEEK, too_many};
    use std::path::PathBuf;

    /// As the program names copies; any figures do.
    fn named(n: i64) -> PathBuf {
        PathBuf::from(format!(
            "backups/bofta-{:04}-{:02}-{:02}T00-00-00.000.db",
            n / HOUR / 10_000,
            n / HOUR / 100 % 100,
            n / HOUR % 100
        ))
    }

    fn copies(ages: impl Iterator<Item = i64>) -> Vec<Copied> {
        ages.map(|age| Copied { path: named(age), made_at: 100 * WEEK - age, bytes: 1 }).collect()
    }

    /// Over half a year with a copy an hour, never more stay than hours, days and weeks are kept, and the youngest of
    /// each age does.
    #[test]
    fn copies_grow_rarer_with_age() {
        let mut all: Vec<Copied> = vec![];
        for hour in 0..26 * 7 * 24 {
            let now = 100 * WEEK + hour * HOUR;
            all.insert(0, Copied { path: named(hour * HOUR), made_at: now, bytes: 1 });
            let gone: Vec<i64> = too_many(&all, now).iter().map(|c| c.made_at).collect();
            all.retain(|c| !gone.contains(&c.made_at));
            assert!(all.len() <= 24 + 14 + 8 && all[0].made_at == now, "{} at hour {hour}", all.len());
        }
        let now = all[0].made_at;
        let ages: Vec<i64> = all.iter().map(|c| now - c.made_at).collect();
        assert!((0..23).all(|h| ages.contains(&(h * HOUR))), "{ages:?}");
        assert!(ages.iter().any(|a| *a > 12 * DAY && *a < 15 * DAY), "{ages:?}");
        assert!(ages.iter().any(|a| *a > 5 * WEEK), "{ages:?}");
        assert!(!ages.iter().any(|a| *a > 9 * WEEK), "{ages:?}");
    }

    /// What the maker named, and what is dated in the future, is never thinned out, and spares nothing in its place.
    #[test]
    fn only_its_own_copies_are_thinned_out() {
        let of = |name: &str, age: i64| Copied { path: PathBuf::from(name), made_at: 100 * WEEK - age, bytes: 1 };
        let all = [
            of("bofta-2127-01-01T00-00-00.000.db", -WEEK),
            of("before the move.db", 40 * WEEK),
            of("bofta-old.db", 40 * WEEK),
            of("bofta-2026-01-01T00-00-00.000.db", 50 * WEEK),
            of("bofta-2025-01-01T00-00-00.000.db", 99 * WEEK),
        ];
        let gone = too_many(&all, 100 * WEEK);
        assert_eq!(gone.iter().map(|c| &c.path).collect::<Vec<_>>(), [&all[4].path]);
    }

    #[test]
    fn the_newest_stays_however_old_it_is() {
        let all = copies([50 * WEEK, 51 * WEEK].into_iter());
        let gone = too_many(&all, 100 * WEEK);
        assert_eq!(gone.iter().map(|c| &c.path).collect::<Vec<_>>(), [&all[1].path]);
    }
}
