//! Who says something: the device that a request comes from, by the name it was let in under.

use std::future::{Ready, ready};

use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest, web};
use bodega_model::measures::moment::Moment;
use bodega_store::ToldBy;

use crate::network::let_in::asking;
use crate::problem::ApiError;
use crate::state::Shared;

/// Who speaks; `None` for the machine that keeps the records.
#[derive(Debug, Clone)]
pub struct Who(pub Option<String>);

impl Who {
    /// What is said now by them.
    #[must_use]
    pub fn tells(self, at: Moment) -> ToldBy {
        ToldBy { at, who: self.0 }
    }
}

impl FromRequest for Who {
    type Error = ApiError;
    type Future = Ready<Result<Self, ApiError>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let shared = request.app_data::<web::Data<Shared>>();
        let device = asking(request).zip(shared).and_then(|(asking, shared)| {
            let mut devices = shared.network.devices.all().into_iter();
            devices.find(|device| device.id == asking.0).map(|device| device.name)
        });
        ready(Ok(Self(device)))
    }
}
