//! Maps and sets whose hasher is the same in every run: what depends on their order is the same too.

use std::collections::hash_map::DefaultHasher;
use std::hash::BuildHasherDefault;

pub(crate) type HashMap<K, V> = std::collections::HashMap<K, V, BuildHasherDefault<DefaultHasher>>;
pub(crate) type HashSet<T> = std::collections::HashSet<T, BuildHasherDefault<DefaultHasher>>;
