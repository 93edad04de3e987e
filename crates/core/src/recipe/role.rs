//! What a part does to the acid of the whole, where its name says more than it was called.

use bodega_model::measures::amounts::Unit;
use bodega_model::recipe::acids::named;
use bodega_model::recipe::part::{Part, Role, Side};
use bodega_model::recipe::weights::{kind, never};

use super::packet::is_packet;

/// How far a role holds a part back: what is never less least, what has no place most.
const fn strictness(role: Role) -> u8 {
    match role.side() {
        Side::Up => 0,
        Side::Any => 1,
        Side::Down => 2,
        Side::Never => 3,
    }
}

/// What a part does, where its name says more than it was called: corn is no spice because somebody calls it so, and vinegar is
/// an acid whatever it is called. Pepper by the spoon is the spice.
#[must_use]
pub fn role_by_name(part: &Part) -> Role {
    let by_spoon = matches!(part.unit, Some(Unit::Teaspoon | Unit::Tablespoon));
    if is_packet(part) {
        return Role::Packet;
    }
    match kind(&part.name) {
        Some((_, Some("peppers"))) if by_spoon => part.role,
        // Called an acid, it counts as one only if it is one.
        Some((known, _)) if known == Role::Acid || known == Role::Tomato || part.role == Role::Acid => known,
        Some((known, _)) if strictness(known) > strictness(part.role) => known,
        Some(_) => part.role,
        // What is asked of an acid is no food beside it: rice vinegar has no rice in it.
        None if named(&part.name).is_some() => part.role,
        None => never(&part.name).unwrap_or(part.role),
    }
}
