package org.zestyporter.demo;

import java.text.Normalizer;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;

/** Made-up names of people and boats, no two alike where they must differ. */
final class Names {
  private static final List<String> GIVEN =
      List.of(
          "Odile", "Hana", "Petra", "Ilse", "Joris", "Marek", "Tove", "Amara", "Luca", "Ines",
          "Bruno", "Signe", "Kofi", "Noor", "Elodie", "Anselm", "Zofia", "Rafael", "Mirela", "Teun",
          "Åsa", "Élise", "Jürgen", "Maëlle", "Søren", "Nuala", "Pavel", "Greta", "Idris", "Wanda");
  private static final List<String> FAMILY =
      List.of(
          "Lindqvist",
          "Osei",
          "Okafor",
          "Arkwright",
          "Bode",
          "Halloran",
          "Fernsby",
          "Dunmore",
          "Abara",
          "Amsel",
          "Brask",
          "Tidewell",
          "Marchetti",
          "Novak",
          "Svendsen",
          "Quill",
          "Pembridge",
          "Castellan",
          "Oyelaran",
          "Brightquay",
          "Müller",
          "Lefèvre",
          "Sjöberg",
          "Kowalczyk",
          "Van Aarle",
          "O'Dowd",
          "Pascoe",
          "Rosewarne",
          "Ferreira",
          "Haldane");
  private static final List<String> HOUSES =
      List.of("fernmail", "tidewell", "oxbow", "brightquay", "saltpost", "lanternbox");
  private static final List<String> FIRST =
      List.of(
          "Saltmarsh",
          "Grey",
          "Merry",
          "Quiet",
          "Old",
          "Second",
          "Halfpenny",
          "Morning",
          "Amber",
          "Silver",
          "Wandering",
          "Northern",
          "Little",
          "Gentle",
          "Brass",
          "Hidden",
          "Blue",
          "Lady",
          "Tidal",
          "Copper",
          "Winter",
          "Bold",
          "Idle",
          "Lucky",
          "Mossy",
          "Restless",
          "Velvet",
          "Stormy",
          "Early",
          "Patient");
  private static final List<String> SECOND =
      List.of(
          "Wren",
          "Heron",
          "Dabchick",
          "Riot",
          "Pennywort",
          "Helping",
          "Lass",
          "Curlew",
          "Teasel",
          "Harmony",
          "Kittiwake",
          "Plover",
          "Corncrake",
          "Lantern",
          "Bramble",
          "Tern",
          "Skylark",
          "Harrier",
          "Petrel",
          "Yarrow",
          "Compass",
          "Whimbrel",
          "Sandpiper",
          "Thrift",
          "Avocet",
          "Ballad",
          "Thimble",
          "Marigold",
          "Puffin",
          "Zephyr");

  private final Random random;
  private final Set<String> emails = new HashSet<>();

  Names(Random random) {
    this.random = random;
  }

  /** An owner of the marina. */
  record Owner(String given, String family, String email) {}

  Owner owner() {
    String given = pick(GIVEN);
    String family = pick(FAMILY);
    String plain =
        Normalizer.normalize(given.charAt(0) + "." + family, Normalizer.Form.NFD)
            .replaceAll("[^A-Za-z.]", "")
            .toLowerCase(Locale.ROOT);
    for (int n = 1; ; n++) {
      String email = plain + (n == 1 ? "" : n) + "@" + pick(HOUSES) + ".example";
      if (emails.add(email)) {
        return new Owner(given, family, email);
      }
    }
  }

  String boat() {
    return pick(FIRST) + " " + pick(SECOND);
  }

  <T> T pick(List<T> from) {
    return from.get(random.nextInt(from.size()));
  }
}
