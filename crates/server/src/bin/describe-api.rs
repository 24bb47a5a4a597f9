//! Prints the description of the API, made from the code.

use std::io::Write as _;

fn main() -> anyhow::Result<()> {
    let told = serde_json::to_string_pretty(&hummock_server::description())?;
    Ok(writeln!(std::io::stdout(), "{told}")?)
}
