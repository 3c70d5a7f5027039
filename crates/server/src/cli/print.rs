//! Lines on standard output, which may be closed by whoever reads them: `bofta draft BAG.json | head`.

use std::fmt::Arguments;
use std::io::{ErrorKind, Write as _};

/// Prints a line as `println!` does. When nobody reads on, the program ends quietly.
macro_rules! say {
    ($($line:tt)*) => {
        $crate::cli::print::line(format_args!($($line)*))
    };
}

/// Prints one line; what `say!` expands to.
pub fn line(text: Arguments<'_>) {
    let Err(why) = writeln!(std::io::stdout(), "{text}") else { return };
    if why.kind() == ErrorKind::BrokenPipe {
        std::process::exit(0);
    }
    eprintln!("bofta: the output could not be written: {why}");
    std::process::exit(1);
}
