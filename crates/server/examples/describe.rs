//! Prints the API's description, made from the handlers: "cargo xtask types" keeps it in `openapi.json`.

fn main() -> anyhow::Result<()> {
    println!("{}", bodega::routes::description_json()?);
    Ok(())
}
