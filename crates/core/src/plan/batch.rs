//! What a batch will be, worked out before anything is cut: jars, acid, salt, loads and the tested process.

use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::measures::teaspoons::Teaspoons;
use bodega_model::recipe::process::{RecipeProcess, tested};
use bodega_model::records::batch::NewLoad;
use bodega_model::tables::process::{Medium, Method, Pack, Product, Query, Refusal, Tested};
use uom::si::f64::Volume;

use crate::canner::loads;
use crate::canner::loads::{Group, LoadPlan};
use crate::canner::room::{NoRoom, Room};
use crate::jars::salt::salt_per_jar;
use crate::plan::yields;

/// What a person wants to make, and of how much fruit.
#[derive(Debug, Clone, PartialEq)]
pub struct Wish {
    /// What the tomatoes become.
    pub product: Product,
    /// The process printed with the recipe, when it is one.
    pub recipe: Option<RecipeProcess>,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// How the jars are heated.
    pub method: Method,
    /// Height of the kitchen.
    pub altitude: Altitude,
    /// Volume of product that the fruit is expected to give.
    pub volume: Range<Volume>,
    /// Acid of choice.
    pub agent: Agent,
    /// The jar most of it goes into.
    pub jar: JarSize,
    /// Jars by size, when the person has decided; otherwise the plan proposes them.
    pub mix: Option<Vec<(JarSize, u32)>>,
}

/// Like jars of the plan.
#[derive(Debug, Clone, PartialEq)]
pub struct MixLine {
    /// Size.
    pub jar: JarSize,
    /// How many.
    pub count: u32,
    /// Acid for one.
    pub acid: Teaspoons,
    /// Salt for one, if wanted.
    pub salt: Teaspoons,
    /// Its tested process.
    pub tested: Tested,
}

/// The answer before the work starts.
#[derive(Debug, Clone, PartialEq)]
pub struct BatchPlan {
    /// Volume of product.
    pub volume: Range<Volume>,
    /// Full jars of the main size.
    pub full_jars: Range<u32>,
    /// Jars to set out, largest first.
    pub mix: Vec<MixLine>,
    /// What the expected volume leaves over after these jars; negative when they hold more than is expected.
    pub left_over: Volume,
    /// Acid for all jars.
    pub acid_total: Teaspoons,
    /// Canner loads.
    pub loads: LoadPlan,
    /// Why they are grouped so, in one line.
    pub why: String,
}

impl BatchPlan {
    /// The loads as they are set out. All jars of a load take the same option: the one with the lowest pressure.
    #[must_use]
    pub fn new_loads(&self) -> Vec<NewLoad> {
        let set_out = |load: &loads::Load| NewLoad {
            jars: load.jars.iter().map(|(place, count)| (self.mix[*place].jar, *count)).collect(),
            minutes: load.minutes,
            psi: load.jars.first().and_then(|(place, _)| self.mix[*place].tested.options[0].psi),
        };
        self.loads.loads.iter().map(set_out).collect()
    }
}

/// Why there is no plan.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NoPlan {
    /// No tested process for a jar of the plan.
    #[error("{}", .0.message)]
    Refused(Refusal),
    /// The canner's capacity is not known.
    #[error(transparent)]
    NoRoom(#[from] NoRoom),
}

/// The jars to set out when nobody has decided: full jars of the main size, and one half its size for the rest if the
/// rest fills it. A part-filled jar is never proposed.
fn proposed_mix(wish: &Wish, volume: Volume) -> Vec<(JarSize, u32)> {
    let full = yields::full_jars(volume, wish.jar);
    let mut mix = vec![(wish.jar, full)];
    let half = match wish.jar {
        JarSize::Quart | JarSize::Litre => Some(JarSize::Pint),
        JarSize::Pint | JarSize::HalfLitre if wish.product != Product::Paste => Some(JarSize::HalfPint),
        _ => None,
    };
    let rest = volume - wish.jar.volume() * f64::from(full);
    mix.extend(half.filter(|half| yields::full_jars(rest, *half) > 0).map(|half| (half, 1)));
    mix
}

/// Works a wish out.
///
/// # Errors
/// [`NoPlan`] when a jar of the plan has no tested process, or the canner's capacity for it is not known.
pub fn work_out(wish: &Wish, room: &dyn Room, turnaround: Minutes) -> Result<BatchPlan, NoPlan> {
    let volume = wish.volume;
    let full = |volume| yields::full_jars(volume, wish.jar);
    let full_jars = Range { low: full(volume.low), expected: full(volume.expected), high: full(volume.high) };
    let mut sizes = wish.mix.clone().unwrap_or_else(|| proposed_mix(wish, volume.expected));
    sizes.sort_unstable_by_key(|(jar, _)| std::cmp::Reverse(*jar));
    let mix = sizes
        .into_iter()
        .map(|(jar, count)| {
            let query = Query {
                product: wish.product,
                medium: wish.medium,
                pack: wish.pack,
                method: wish.method,
                jar,
                altitude: wish.altitude,
            };
            let tested = tested(&query, wish.recipe.as_ref()).map_err(NoPlan::Refused)?;
            let (acid, salt) = if wish.product.brings_its_acid() {
                (Teaspoons::ZERO, Teaspoons::ZERO)
            } else {
                (acid::per_jar(wish.agent, jar), salt_per_jar(jar))
            };
            Ok(MixLine { jar, count, acid, salt, tested })
        })
        .collect::<Result<Vec<_>, NoPlan>>()?;
    let groups: Vec<Group> = mix
        .iter()
        .map(|line| Group { jar: line.jar, minutes: line.tested.options[0].minutes, count: line.count })
        .collect();
    let held =
        mix.iter().fold(Volume::default(), |sum, line| sum + line.jar.volume() * f64::from(line.count));
    let grouped = loads::group(&groups, room, turnaround)?;
    Ok(BatchPlan {
        volume,
        full_jars,
        left_over: volume.expected - held,
        acid_total: mix.iter().map(|line| line.acid.times(line.count)).sum(),
        why: loads::why(&groups, &grouped, room, turnaround),
        loads: grouped,
        mix,
    })
}

#[cfg(test)]
mod tests {
    use super::{BatchPlan, NoPlan, Wish, work_out};
    use crate::canner::room::Capacity;
    use bodega_model::jars::acid::Agent;
    use bodega_model::jars::size::JarSize;
    use bodega_model::kitchen::altitude::Altitude;
    use bodega_model::measures::moment::Minutes;
    use bodega_model::measures::units::pounds;
    use bodega_model::tables::process::{Medium, Method, Pack, Product, RefusalCode};

    fn whole(weight_lb: f64, medium: Medium, jar: JarSize) -> Result<BatchPlan, NoPlan> {
        let wish = Wish {
            product: Product::Whole,
            recipe: None,
            medium: Some(medium),
            pack: Pack::Raw,
            method: Method::BoilingWater,
            altitude: Altitude::from_feet(2640.0).unwrap(),
            volume: crate::plan::yields::expect(Product::Whole, None, pounds(weight_lb)),
            agent: Agent::BottledLemonJuice,
            jar,
            mix: None,
        };
        let capacity =
            [Capacity { jar: JarSize::Quart, count: 7 }, Capacity { jar: JarSize::Pint, count: 9 }];
        work_out(&wish, &capacity, Minutes(25))
    }

    #[test]
    fn thirty_pounds_whole_in_water_make_ten_quarts_in_two_loads_of_fifty_minutes() {
        let plan = whole(30.0, Medium::Water, JarSize::Quart).unwrap();
        assert_eq!((plan.full_jars.low, plan.full_jars.expected, plan.full_jars.high), (8, 10, 11));
        assert_eq!(plan.mix.len(), 1);
        assert_eq!(plan.mix[0].acid.label(), "2 Tbsp");
        assert_eq!(plan.acid_total.total_label(), "1¼ cups");
        assert_eq!(plan.loads.loads.iter().map(|load| load.minutes.0).collect::<Vec<_>>(), [50, 50]);
    }

    #[test]
    fn the_same_fruit_without_liquid_needs_ninety_minutes() {
        let plan = whole(30.0, Medium::None, JarSize::Quart).unwrap();
        assert!(plan.loads.loads.iter().all(|load| load.minutes == Minutes(90)));
    }

    #[test]
    fn a_rest_that_fills_a_pint_is_offered_one() {
        let plan = whole(22.5, Medium::Water, JarSize::Quart).unwrap();
        assert_eq!(
            plan.mix.iter().map(|line| (line.jar, line.count)).collect::<Vec<_>>(),
            [(JarSize::Quart, 7), (JarSize::Pint, 1)]
        );
    }

    #[test]
    fn half_gallons_are_refused() {
        let Err(NoPlan::Refused(refusal)) = whole(30.0, Medium::Water, JarSize::HalfGallon) else { panic!() };
        assert_eq!(refusal.code, RefusalCode::JarNotTested);
    }
}
