//! Where the scale on the bench is.

/// The scale, where there is one.
#[derive(Debug, Clone, Default)]
pub(crate) struct Scale(pub(super) Option<String>);

impl Scale {
    /// At an address, where there is one.
    pub(crate) fn at(address: Option<&str>) -> Self {
        Self(address.map(|address| address.trim_end_matches('/').to_owned()))
    }
}
