//! What another pack of the same food would take: a preset that changes the time is shown beside the others.

use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Minutes;
use bodega_model::tables::process::{Medium, Method, Pack, Product, Query, check_medium, look_up};
use serde::Serialize;

/// One way to pack a product, with its tested minutes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PackTime {
    /// What whole tomatoes lie in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Tested minutes at this altitude.
    pub minutes: Minutes,
}

/// Every way to pack a product that has a tested process in this jar, at this altitude, by this method.
#[must_use]
pub fn packs(product: Product, method: Method, jar: JarSize, altitude: Altitude) -> Vec<PackTime> {
    let media = Medium::ALL.iter().copied().map(Some).chain([None]);
    let ways = media.flat_map(|medium| Pack::ALL.iter().map(move |pack| (medium, *pack)));
    ways.filter(|(medium, _)| check_medium(product, *medium).is_ok())
        .filter_map(|(medium, pack)| {
            let tested = look_up(&Query { product, medium, pack, method, jar, altitude }).ok()?;
            Some(PackTime { medium, pack, minutes: tested.options[0].minutes })
        })
        .collect()
}
