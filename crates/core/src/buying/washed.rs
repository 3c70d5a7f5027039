//! Washed and unwashed lengths told apart: cloth is bought at one size and laid at another.

use crate::cloth::Cloth;
use crate::measure::{Length, Ruler, show_bought};

/// What washing makes of `bought` of a cloth, when it is washed before it is cut: both its sizes, before and after, down
/// to a line of `ruler`.
pub fn washed(cloth: &Cloth, bought: Length, ruler: Ruler) -> Option<String> {
    let shrink = cloth.shrink;
    if shrink.along == 0 && shrink.across == 0 {
        return None;
    }
    let unit = ruler.system().symbol();
    let after = |l: Length| format!("{} {unit}", ruler.show(l.floor_to(ruler.step())).text);
    let wide = cloth
        .bought_width()
        .map(|w| format!("a width of {} comes out at {}", after(w), after(w.shrunk(shrink.across))));
    let long = format!(
        "a length of {} comes out at {}",
        show_bought(bought, ruler.system()),
        after(bought.shrunk(shrink.along))
    );
    Some(format!("washed before cutting: {}{long}", wide.map(|w| format!("{w}, ")).unwrap_or_default()))
}
