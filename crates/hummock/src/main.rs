//! The binary: the application with the pages that it carries.

fn main() -> anyhow::Result<()> {
    hummock_server::command(hummock_pages::file)
}
