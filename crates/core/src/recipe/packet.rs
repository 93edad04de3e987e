//! Bought packets of mix and seasoning: how many there have to be, and what is still to be read on their label.
//!
//! Pounds of tomatoes to a packet, where its acid is, and its minutes are inputs from the label. Packets are rounded up: one short
//! is less acid, or less of what was tested. Common practice, no source.

use bodega_model::measures::amounts::{Unit, exact};
use bodega_model::recipe::part::{Part, Role};
use bodega_model::recipe::weights::kind;
use bodega_model::recipe::words::Words;
use num_rational::BigRational;

/// Words for something that is bought mixed.
const MIXED: [&str; 10] = [
    "mix",
    "mixes",
    "seasoning",
    "seasonings",
    "packet",
    "packets",
    "sachet",
    "sachets",
    "envelope",
    "envelopes",
];
/// Mixed herbs and spices that are dried and nothing else.
const SPICES: [&str; 5] =
    ["italian seasoning", "poultry seasoning", "seasoning salt", "seasoning pepper", "mixed spice"];

/// Whether a part is a bought packet of mix or seasoning, whatever it was called.
#[must_use]
pub fn is_packet(part: &Part) -> bool {
    let words = Words::of(&part.name);
    let is_counted = matches!(part.unit, None | Some(Unit::Packet | Unit::Piece));
    if words.has_any(&SPICES) && !is_counted {
        return false;
    }
    let known = || kind(&part.name).map(|(role, _)| role);
    if words.has_any(&MIXED) {
        // A cup of a mix of peppers is peppers.
        return is_counted || !matches!(known(), Some(Role::LowAcid | Role::Free));
    }
    part.unit == Some(Unit::Packet) && known().is_none()
}

/// Packets that so many grams of tomatoes take, by the label; none while nobody read it.
pub(super) fn needed_by_label(part: &Part, tomatoes_g: &BigRational) -> Option<BigRational> {
    let to_one = exact(part.packet?.tomatoes_lb?) * Unit::Pound.size();
    Some(tomatoes_g / to_one)
}

/// What is still to be read on the label of a packet, for a person.
#[must_use]
pub fn open_questions(part: &Part) -> Vec<String> {
    if !is_packet(part) {
        return Vec::new();
    }
    let label = part.packet.unwrap_or_default();
    let mut open = Vec::new();
    if label.tomatoes_lb.is_none() {
        open.push(format!("How many pounds of tomatoes does one {} take? Its label says.", part.name));
    }
    if label.acid.is_none() {
        open.push(format!(
            "Where is the acid of the {}: in the packet, or does its label say which to add?",
            part.name
        ));
    }
    open
}
