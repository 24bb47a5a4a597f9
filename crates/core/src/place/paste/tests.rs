use proptest::prelude::*;

use super::*;
use crate::place::{OwnCountry, PostcodePlace};

fn own(code: &str, name: &str, place: PostcodePlace) -> OwnCountry {
    OwnCountry {
        code: code.into(),
        name: name.into(),
        format: place.format().clone(),
    }
}

/// A studio in a country of its own making.
fn saltmark() -> Countries {
    let own = vec![
        own("XS", "Saltmark", PostcodePlace::AfterTown),
        own("XV", "Vestholm", PostcodePlace::BeforeTown),
    ];
    Countries::of(own, "", Vec::new())
}

fn at_home(home: &str) -> Countries {
    Countries::of(Vec::new(), home, Vec::new())
}

fn fields(block: &str, countries: &Countries) -> [String; 5] {
    let Buyer {
        name,
        street,
        town,
        postcode,
        country,
        ..
    } = part_address(block, countries).buyer;
    [name, street, town, postcode, country]
}

#[test]
fn made_up_customs_are_read() {
    let countries = saltmark();
    for (block, wanted) in [
        (
            "Corrie Vane\n14 Ferry Stairs\nSallow Hythe SH2 7\nSaltmark",
            [
                "Corrie Vane",
                "14 Ferry Stairs",
                "Sallow Hythe",
                "SH2 7",
                "XS",
            ],
        ),
        (
            "Ship to: Ines Tollard\r\nKaigata 3B,\r\n4120 Grindvik\r\nXV\r\nTel: +47 555 01 23\r\n",
            ["Ines Tollard", "Kaigata 3B", "Grindvik", "4120", "XV"],
        ),
        (
            "Brannoch & Lyle, 3 Tollgate Row, Tarrow Bridge, TB11 4, saltmark",
            [
                "Brannoch & Lyle",
                "3 Tollgate Row",
                "Tarrow Bridge",
                "TB11 4",
                "XS",
            ],
        ),
        ("Oda Marsh", ["Oda Marsh", "", "", "", ""]),
        ("", ["", "", "", "", ""]),
    ] {
        assert_eq!(fields(block, &countries), wanted, "{block}");
    }
    let parted = part_address(
        "Oda Marsh\n9 Long Quay\nNetherby\n0555 123 456 78",
        &countries,
    );
    assert_eq!(parted.left, ["0555 123 456 78"]);
    assert_eq!(parted.doubts, ["buyer.postcode", "buyer.country"]);
    assert_eq!(parted.buyer.town, "Netherby");
}

/// What people paste, in twenty countries; every name, firm and street is invented. Home, the block, then name, company, street,
/// neighbourhood, town, region, postcode and country.
const PASTED: &[(&str, &str, [&str; 8])] = &[
    // Germany.
    (
        "DE",
        "Anna Weber\nHafenstraße 12\n20457 Hamburg\nDeutschland",
        [
            "Anna Weber",
            "",
            "Hafenstraße 12",
            "",
            "Hamburg",
            "",
            "20457",
            "DE",
        ],
    ),
    (
        "US",
        "Anna Weber, Hafenstraße 12, 20457 Hamburg, Germany",
        [
            "Anna Weber",
            "",
            "Hafenstraße 12",
            "",
            "Hamburg",
            "",
            "20457",
            "DE",
        ],
    ),
    (
        "DE",
        "Galerie Nordlicht GmbH\nz. Hd. Jonas Kettler\nAm Speicher 4\n50667 Köln",
        [
            "Jonas Kettler",
            "Galerie Nordlicht GmbH",
            "Am Speicher 4",
            "",
            "Köln",
            "",
            "50667",
            "DE",
        ],
    ),
    (
        "FR",
        "Jonas Kettler\nAm Speicher 4\nD-50667 Köln",
        [
            "Jonas Kettler",
            "",
            "Am Speicher 4",
            "",
            "Köln",
            "",
            "50667",
            "DE",
        ],
    ),
    (
        "DE",
        "Name: Mia Brandt\nStraße: Lindenweg 7a\nPLZ: 01097\nOrt: Dresden\nLand: Deutschland",
        [
            "Mia Brandt",
            "",
            "Lindenweg 7a",
            "",
            "Dresden",
            "",
            "01097",
            "DE",
        ],
    ),
    // Austria and Switzerland.
    (
        "DE",
        "Familie Gruber\nKirchgasse 3/12\nA-6020 Innsbruck\nÖsterreich",
        [
            "Familie Gruber",
            "",
            "Kirchgasse 3/12",
            "",
            "Innsbruck",
            "",
            "6020",
            "AT",
        ],
    ),
    (
        "AT",
        "Luzia Ammann\nc/o Rahmenwerk AG\nSeestrasse 101\nCH-8002 Zürich\nSchweiz",
        [
            "Luzia Ammann",
            "",
            "c/o Rahmenwerk AG, Seestrasse 101",
            "",
            "Zürich",
            "",
            "8002",
            "CH",
        ],
    ),
    (
        "DE",
        "Chloé Favre\nRue du Lac 18\n1800 Vevey\nSuisse",
        [
            "Chloé Favre",
            "",
            "Rue du Lac 18",
            "",
            "Vevey",
            "",
            "1800",
            "CH",
        ],
    ),
    // Netherlands and Belgium.
    (
        "NL",
        "Sanne de Wit\nKeizersgracht 401-II\n1016 EK Amsterdam",
        [
            "Sanne de Wit",
            "",
            "Keizersgracht 401-II",
            "",
            "Amsterdam",
            "",
            "1016 EK",
            "NL",
        ],
    ),
    (
        "DE",
        "Sanne de Wit\nKeizersgracht 401-II\n1016EK Amsterdam\nThe Netherlands",
        [
            "Sanne de Wit",
            "",
            "Keizersgracht 401-II",
            "",
            "Amsterdam",
            "",
            "1016EK",
            "NL",
        ],
    ),
    (
        "GB",
        "Lijstenmakerij Vos B.V.\nPieter Vos\nOude Haven 9\n3011 AB Rotterdam Nederland",
        [
            "Pieter Vos",
            "Lijstenmakerij Vos B.V.",
            "Oude Haven 9",
            "",
            "Rotterdam",
            "",
            "3011 AB",
            "NL",
        ],
    ),
    (
        "NL",
        "Emma Claes, Meir 21 bus 3, 2000 Antwerpen, België",
        [
            "Emma Claes",
            "",
            "Meir 21 bus 3",
            "",
            "Antwerpen",
            "",
            "2000",
            "BE",
        ],
    ),
    // France.
    (
        "FR",
        "Mme Camille Roux\n14 rue des Tanneurs\nBâtiment B\n69001 LYON",
        [
            "Mme Camille Roux",
            "",
            "14 rue des Tanneurs, Bâtiment B",
            "",
            "LYON",
            "",
            "69001",
            "FR",
        ],
    ),
    (
        "GB",
        "Atelier Roux SARL\n14 rue des Tanneurs\n69001 Lyon (France)",
        [
            "Atelier Roux SARL",
            "",
            "14 rue des Tanneurs",
            "",
            "Lyon",
            "",
            "69001",
            "FR",
        ],
    ),
    (
        "DE",
        "Camille Roux; 14 rue des Tanneurs; F-69001 Lyon; FR",
        [
            "Camille Roux",
            "",
            "14 rue des Tanneurs",
            "",
            "Lyon",
            "",
            "69001",
            "FR",
        ],
    ),
    // Italy, Spain and Portugal.
    (
        "IT",
        "Giulia Ferri\nVia dei Coronari 88\n00186 Roma RM\nItalia",
        [
            "Giulia Ferri",
            "",
            "Via dei Coronari 88",
            "",
            "Roma",
            "RM",
            "00186",
            "IT",
        ],
    ),
    (
        "DE",
        "Giulia Ferri\nVia dei Coronari 88, int. 4\n00186 Roma (RM)\nItaly",
        [
            "Giulia Ferri",
            "",
            "Via dei Coronari 88, int. 4",
            "",
            "Roma",
            "RM",
            "00186",
            "IT",
        ],
    ),
    (
        "ES",
        "Lucía Prado\nCalle del Pez 24, 3º B\n28004 Madrid\nEspaña",
        [
            "Lucía Prado",
            "",
            "Calle del Pez 24, 3º B",
            "",
            "Madrid",
            "Madrid",
            "28004",
            "ES",
        ],
    ),
    (
        "FR",
        "Lucía Prado\nCarrer Nou 5\n17600 Figueres\nGirona\nSpain",
        [
            "Lucía Prado",
            "",
            "Carrer Nou 5",
            "",
            "Figueres",
            "Girona",
            "17600",
            "ES",
        ],
    ),
    (
        "PT",
        "Rui Salgado\nRua das Flores 77, 2.º Esq.\n4050-265 Porto\nPortugal",
        [
            "Rui Salgado",
            "",
            "Rua das Flores 77, 2.º Esq.",
            "",
            "Porto",
            "",
            "4050-265",
            "PT",
        ],
    ),
    // The north.
    (
        "SE",
        "Elin Åkesson\nStorgatan 5\n211 42 Malmö\nSverige",
        [
            "Elin Åkesson",
            "",
            "Storgatan 5",
            "",
            "Malmö",
            "",
            "211 42",
            "SE",
        ],
    ),
    (
        "DE",
        "Elin Åkesson\nStorgatan 5\nSE-211 42 Malmö\nSweden",
        [
            "Elin Åkesson",
            "",
            "Storgatan 5",
            "",
            "Malmö",
            "",
            "211 42",
            "SE",
        ],
    ),
    (
        "NO",
        "Ola Viken\nSjøgata 14B\n8006 Bodø",
        ["Ola Viken", "", "Sjøgata 14B", "", "Bodø", "", "8006", "NO"],
    ),
    (
        "SE",
        "Freja Holm, Nyhavn 31, 2. tv, 1051 København K, Danmark",
        [
            "Freja Holm",
            "",
            "Nyhavn 31, 2. tv",
            "",
            "København K",
            "",
            "1051",
            "DK",
        ],
    ),
    (
        "DE",
        "Aino Laine\nMannerheimintie 12 A 5\n00100 Helsinki\nSuomi",
        [
            "Aino Laine",
            "",
            "Mannerheimintie 12 A 5",
            "",
            "Helsinki",
            "",
            "00100",
            "FI",
        ],
    ),
    (
        "DE",
        "Zofia Lis\nul. Długa 8/3\n31-147 Kraków\nPolska",
        [
            "Zofia Lis",
            "",
            "ul. Długa 8/3",
            "",
            "Kraków",
            "",
            "31-147",
            "PL",
        ],
    ),
    // Great Britain and its neighbours.
    (
        "GB",
        "Jo Reed\n14 High Street\nOxford\nOX1 4AB",
        [
            "Jo Reed",
            "",
            "14 High Street",
            "",
            "Oxford",
            "",
            "OX1 4AB",
            "GB",
        ],
    ),
    (
        "US",
        "Jo Reed, Flat 3, 14 High Street, Oxford, OX1 4AB, UK",
        [
            "Jo Reed",
            "",
            "Flat 3, 14 High Street",
            "",
            "Oxford",
            "",
            "OX1 4AB",
            "GB",
        ],
    ),
    (
        "GB",
        "Jo Reed\nThe Old Mill\nQuay Lane\nWantage\nOxfordshire\nOX12 8DA\nEngland",
        [
            "Jo Reed",
            "",
            "The Old Mill, Quay Lane",
            "",
            "Wantage",
            "Oxfordshire",
            "OX12 8DA",
            "GB",
        ],
    ),
    (
        "DE",
        "Pier Gallery Ltd\nAttn: Morag Tait\n2 Shore Road\nEdinburgh EH6 6RB\nScotland",
        [
            "Morag Tait",
            "Pier Gallery Ltd",
            "2 Shore Road",
            "",
            "Edinburgh",
            "",
            "EH6 6RB",
            "GB",
        ],
    ),
    (
        "GB",
        "morag tait\n2 shore road\nedinburgh eh6 6rb\nunited kingdom",
        [
            "morag tait",
            "",
            "2 shore road",
            "",
            "edinburgh",
            "",
            "EH6 6RB",
            "GB",
        ],
    ),
    (
        "DE",
        "Morag Tait\n2 Shore Road\nLondon SW1A 1AA",
        [
            "Morag Tait",
            "",
            "2 Shore Road",
            "",
            "London",
            "",
            "SW1A 1AA",
            "GB",
        ],
    ),
    (
        "GB",
        "Ann Le Brocq\n7 Pier Road\nSt Helier\nJE2 4XW\nJersey",
        [
            "Ann Le Brocq",
            "",
            "7 Pier Road",
            "",
            "St Helier",
            "",
            "JE2 4XW",
            "JE",
        ],
    ),
    (
        "IE",
        "Síle Ní Bhriain\n12 Quay Street\nGalway\nCo. Galway\nH91 E2K3",
        [
            "Síle Ní Bhriain",
            "",
            "12 Quay Street",
            "",
            "Galway",
            "Co. Galway",
            "H91 E2K3",
            "IE",
        ],
    ),
    (
        "GB",
        "Eoin Daly\n5 Mill Lane\nRanelagh\nDublin 6\nD06 X2Y3\nIreland",
        [
            "Eoin Daly",
            "",
            "5 Mill Lane",
            "Ranelagh",
            "Dublin 6",
            "",
            "D06 X2Y3",
            "IE",
        ],
    ),
    (
        "IE",
        "Eoin Daly, The Forge, Kinvara, County Galway, Ireland",
        [
            "Eoin Daly",
            "",
            "The Forge",
            "",
            "Kinvara",
            "Co. Galway",
            "",
            "IE",
        ],
    ),
    // North America.
    (
        "US",
        "Dana Whitlock\n1420 SE Oak St, Apt 4\nPortland, OR 97214",
        [
            "Dana Whitlock",
            "",
            "1420 SE Oak St, Apt 4",
            "",
            "Portland",
            "OR",
            "97214",
            "US",
        ],
    ),
    (
        "DE",
        "Dana Whitlock, 1420 SE Oak St, Apt 4, Portland, OR, 97214, USA",
        [
            "Dana Whitlock",
            "",
            "1420 SE Oak St, Apt 4",
            "",
            "Portland",
            "OR",
            "97214",
            "US",
        ],
    ),
    (
        "US",
        "Harbor Frames LLC\nDana Whitlock\n88 Pier Ave\nSanta Fe, New Mexico 87501-2204\nUnited States",
        [
            "Dana Whitlock",
            "Harbor Frames LLC",
            "88 Pier Ave",
            "",
            "Santa Fe",
            "NM",
            "87501-2204",
            "US",
        ],
    ),
    (
        "US",
        "Dana Whitlock\n350 W 21st St\nNew York, NY 10011",
        [
            "Dana Whitlock",
            "",
            "350 W 21st St",
            "",
            "New York",
            "NY",
            "10011",
            "US",
        ],
    ),
    (
        "CA",
        "Dana Whitlock\n12345 Old Mill Rd\nDes Moines IA 50309\nU.S.A.",
        [
            "Dana Whitlock",
            "",
            "12345 Old Mill Rd",
            "",
            "Des Moines",
            "IA",
            "50309",
            "US",
        ],
    ),
    (
        "US",
        "Dana Whitlock\n9 Peach Ct\nAtlanta, Georgia 30303",
        [
            "Dana Whitlock",
            "",
            "9 Peach Ct",
            "",
            "Atlanta",
            "GA",
            "30303",
            "US",
        ],
    ),
    (
        "CA",
        "Luc Gagnon\n55 rue Saint-Paul\nQuébec QC G1K 3V8",
        [
            "Luc Gagnon",
            "",
            "55 rue Saint-Paul",
            "",
            "Québec",
            "QC",
            "G1K 3V8",
            "CA",
        ],
    ),
    (
        "US",
        "Luc Gagnon\n402-1188 Quebec St\nVancouver, British Columbia\nV6A 4H7\nCanada",
        [
            "Luc Gagnon",
            "",
            "402-1188 Quebec St",
            "",
            "Vancouver",
            "BC",
            "V6A 4H7",
            "CA",
        ],
    ),
    (
        "DE",
        "Luc Gagnon\n17 Water St\nHalifax NS B3J 1A1",
        [
            "Luc Gagnon",
            "",
            "17 Water St",
            "",
            "Halifax",
            "NS",
            "B3J 1A1",
            "CA",
        ],
    ),
    (
        "US",
        "Inés Robledo\nCalle Orizaba 101-3\nRoma Norte\n06700 Ciudad de México, CDMX\nMéxico",
        [
            "Inés Robledo",
            "",
            "Calle Orizaba 101-3",
            "Roma Norte",
            "Ciudad de México",
            "CDMX",
            "06700",
            "MX",
        ],
    ),
    // South America.
    (
        "BR",
        "Beatriz Lemos\nRua Augusta, 1500, apto 42\nConsolação\nSão Paulo - SP\n01304-001\nBrasil",
        [
            "Beatriz Lemos",
            "",
            "Rua Augusta, 1500, apto 42",
            "Consolação",
            "São Paulo",
            "SP",
            "01304-001",
            "BR",
        ],
    ),
    (
        "BR",
        "Beatriz Lemos\nRua da Aurora, 325 - Boa Vista\nRecife/PE\nCEP 50050-000",
        [
            "Beatriz Lemos",
            "",
            "Rua da Aurora, 325",
            "Boa Vista",
            "Recife",
            "PE",
            "50050-000",
            "BR",
        ],
    ),
    (
        "DE",
        "Ateliê Lemos Ltda\nBeatriz Lemos\nAv. Beira Mar 90\nCentro\nFlorianópolis-SC\n88015-000\nBrazil",
        [
            "Beatriz Lemos",
            "Ateliê Lemos Ltda",
            "Av. Beira Mar 90",
            "Centro",
            "Florianópolis",
            "SC",
            "88015-000",
            "BR",
        ],
    ),
    // Japan.
    (
        "JP",
        "〒150-0001\n東京都渋谷区神宮前1-2-3\n山田花子 様",
        [
            "山田花子",
            "",
            "渋谷区神宮前1-2-3",
            "",
            "",
            "東京都",
            "150-0001",
            "JP",
        ],
    ),
    (
        "JP",
        "日本\n〒604-8005\n京都府\n京都市中京区恵比須町427\n株式会社しおくさ\n佐藤健",
        [
            "佐藤健",
            "株式会社しおくさ",
            "京都市中京区恵比須町427",
            "",
            "",
            "京都府",
            "604-8005",
            "JP",
        ],
    ),
    (
        "US",
        "Hanako Yamada\n1-2-3 Jingumae, Shibuya-ku\nTokyo 150-0001\nJapan",
        [
            "Hanako Yamada",
            "",
            "1-2-3 Jingumae, Shibuya-ku",
            "",
            "",
            "Tokyo",
            "150-0001",
            "JP",
        ],
    ),
    (
        "DE",
        "Hanako Yamada, 4-5-6 Gion, Higashiyama-ku, Kyoto, 605-0074, Japan",
        [
            "Hanako Yamada",
            "",
            "4-5-6 Gion, Higashiyama-ku",
            "",
            "",
            "Kyoto",
            "605-0074",
            "JP",
        ],
    ),
    // Australia, New Zealand, India, Singapore, Hong Kong.
    (
        "AU",
        "Kirra Dunn\nUnit 2/18 Wharf St\nFremantle WA 6160",
        [
            "Kirra Dunn",
            "",
            "Unit 2/18 Wharf St",
            "",
            "Fremantle",
            "WA",
            "6160",
            "AU",
        ],
    ),
    (
        "GB",
        "Kirra Dunn\n18 Wharf St\nHobart Tasmania 7000\nAustralia",
        [
            "Kirra Dunn",
            "",
            "18 Wharf St",
            "",
            "Hobart",
            "TAS",
            "7000",
            "AU",
        ],
    ),
    (
        "AU",
        "Tane Parata\n31 Cuba Street\nTe Aro\nWellington 6011\nNew Zealand",
        [
            "Tane Parata",
            "",
            "31 Cuba Street",
            "Te Aro",
            "Wellington",
            "",
            "6011",
            "NZ",
        ],
    ),
    (
        "IN",
        "Meera Nair\n14/2 Church Road\nFort Kochi\nKochi 682001\nKerala\nIndia",
        [
            "Meera Nair",
            "",
            "14/2 Church Road, Fort Kochi",
            "",
            "Kochi",
            "Kerala",
            "682001",
            "IN",
        ],
    ),
    (
        "GB",
        "Wei Ling Tan\n12 Orchard Road #04-11\nSingapore 238801",
        [
            "Wei Ling Tan",
            "",
            "12 Orchard Road #04-11",
            "",
            "",
            "",
            "238801",
            "SG",
        ],
    ),
    (
        "GB",
        "Ka Yan Ho\nFlat 8A, 20 Lockhart Road\nWan Chai\nHong Kong",
        [
            "Ka Yan Ho",
            "",
            "Flat 8A, 20 Lockhart Road",
            "",
            "Wan Chai",
            "",
            "",
            "HK",
        ],
    ),
    (
        "US",
        "Thandi Nkosi\n7 Long Street\nGardens\nCape Town\n8001\nSouth Africa",
        [
            "Thandi Nkosi",
            "",
            "7 Long Street",
            "Gardens",
            "Cape Town",
            "",
            "8001",
            "ZA",
        ],
    ),
];

/// How many of them may be parted otherwise than a person would.
const MOST_WRONG: usize = 3;

#[test]
fn what_people_paste_is_parted_by_its_country() {
    assert_eq!(PASTED.len(), 60);
    let mut wrong = Vec::new();
    for (home, block, wanted) in PASTED {
        let parted = part_address(block, &at_home(home));
        let buyer = &parted.buyer;
        let read = [
            &buyer.name,
            &buyer.company,
            &buyer.street,
            &buyer.neighbourhood,
            &buyer.town,
            &buyer.region,
            &buyer.postcode,
            &buyer.country,
        ];
        if read != *wanted {
            wrong.push(format!("{block}\n  read   {read:?}\n  wanted {wanted:?}"));
        }
        nothing_is_lost(block, &parted);
    }
    assert!(
        wrong.len() <= MOST_WRONG,
        "{} wrong:\n{}",
        wrong.len(),
        wrong.join("\n")
    );
}

/// Every word with a figure in it, which no label and no country is, stands somewhere.
fn nothing_is_lost(block: &str, parted: &PartedAddress) {
    let buyer = &parted.buyer;
    let all = AddressPart::ALL.iter().map(|part| part.of(buyer));
    let all: Vec<&str> = all.chain(parted.left.iter().map(String::as_str)).collect();
    let all = all.join(" ").to_uppercase();
    let pieces = block.split(|one: char| !one.is_ascii_alphanumeric());
    for word in pieces.filter(|word| word.chars().any(|one| one.is_ascii_digit())) {
        assert!(
            all.contains(&word.to_uppercase()),
            "{word} of {block:?}: {parted:?}"
        );
    }
}

/// Whatever a real country's format writes is read again: the name, the street, the postcode, the region and the country.
#[test]
fn what_a_country_writes_is_read_again() {
    let mut wrong = Vec::new();
    for country in crate::place::Country::all() {
        let format = country.format();
        // Two write street and town on one line, with a gap between: nobody can part them.
        // Mozambique's has town and region without a gap, and Kazakhstan's the name last in any letters.
        if ["CI", "GN", "MZ", "KZ"].contains(&country.code.as_str()) {
            continue;
        }
        let written = |part: AddressPart, text: &str| {
            if format.has(part) {
                text.to_owned()
            } else {
                String::new()
            }
        };
        let regions: Vec<&str> = format
            .regions
            .iter()
            .map(crate::place::Region::written)
            .collect();
        for at in [0, regions.len() / 2, regions.len().saturating_sub(1)] {
            let region = regions.get(at).filter(|_| format.latin.is_empty());
            let address = Buyer {
                name: "Oda Marsh".into(),
                street: "12 Ferry Stairs".into(),
                town: written(AddressPart::Town, "Netherby Quay"),
                region: written(AddressPart::Region, region.copied().unwrap_or_default()),
                postcode: written(AddressPart::Postcode, format.example.unwrap_or_default()),
                country: country.code.clone(),
                ..Buyer::default()
            };
            let mut lines = format.lines(&address);
            lines.push(country.name.clone());
            let block = lines.join("\n");
            let parted = part_address(&block, &at_home("DE"));
            let told = |buyer: &Buyer| {
                let Buyer {
                    name,
                    street,
                    town,
                    region,
                    postcode,
                    country,
                    ..
                } = buyer.clone();
                [name, street, town, region, postcode.to_uppercase(), country]
            };
            let (read, wanted) = (told(&parted.buyer), told(&address));
            if read != wanted {
                wrong.push(format!("{block:?}\n  read   {read:?}\n  wanted {wanted:?}"));
            }
        }
    }
    assert!(
        wrong.is_empty(),
        "{} wrong:\n{}",
        wrong.len(),
        wrong.join("\n")
    );
}

/// A town may be called what a telephone is called; a telephone has six figures at least, or a mark behind its name.
#[test]
fn a_town_is_no_telephone() {
    let countries = saltmark();
    let block = "Aaa Aaa\n1 Aaaa Road\nMob A1 1AA\nSaltmark";
    let wanted = ["Aaa Aaa", "1 Aaaa Road", "Mob", "A1 1AA", "XS"];
    assert_eq!(fields(block, &countries), wanted);
    for telephone in [
        "Mob 07700 900123",
        "Tel: 4417",
        "Tel. 0221 4417",
        "Fax 123456",
    ] {
        let with = format!("Aaa Aaa\n{telephone}\n1 Aaaa Road\nNetherby A1 1AA\nSaltmark");
        let wanted = ["Aaa Aaa", "1 Aaaa Road", "Netherby", "A1 1AA", "XS"];
        assert_eq!(fields(&with, &countries), wanted, "{telephone}");
    }
}

proptest! {
    #[test]
    fn what_is_put_together_by_a_custom_is_parted_again(
        name in "[A-Z][a-z]{2,9} [A-Z][a-z]{2,9}", street in "[1-9][0-9]{0,2} [A-Z][a-z]{3,9} (Road|Quay|Row)",
        town in "[A-Z][a-z]{2,9}( [A-Z][a-z]{2,9})?", postcode in "[A-Z]{1,2}[1-9] [1-9][A-Z]{2}|[1-9][0-9]{3,4}",
        custom in 0..4, country in prop::option::of(0..2_usize),
    ) {
        let countries = saltmark();
        // A town that is called as a country is one, at the end of a block.
        prop_assume!(town.split(' ').all(|word| countries.named(word).is_none()) && countries.named(&town).is_none());
        let place = match custom {
            0 => format!("{town} {postcode}"),
            1 => format!("{postcode} {town}"),
            2 => format!("{town}\n{postcode}"),
            _ => format!("{town}, {postcode}"),
        };
        let last = country.map(|at| &countries.own()[at]);
        let mut block = format!("{name}\n{street}\n{place}");
        if let Some(country) = last {
            block.push('\n');
            block.push_str(&country.name);
            let wanted = [name.as_str(), &street, &town, &postcode, &country.code];
            prop_assert_eq!(fields(&block, &countries), wanted, "{}", block);
        }
    }

    #[test]
    fn nothing_of_a_block_is_lost(block in "[A-Za-z0-9 ,.\n:+-]{0,200}") {
        nothing_is_lost(&block, &part_address(&block, &saltmark()));
        nothing_is_lost(&block, &part_address(&block, &at_home("US")));
    }
}
