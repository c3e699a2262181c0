package fixshelf.demo;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.SplittableRandom;
import org.jspecify.annotations.Nullable;

/// A visit to a mending room, as it really was.
///
/// @param weightGrams null when nobody weighed it
/// @param costCents what the parts cost; null when nothing was noted
public record Visit(
        long number,
        LocalDateTime recordedAt,
        LocalDate received,
        String village,
        String item,
        @Nullable String fault,
        @Nullable Integer weightGrams,
        @Nullable Integer costCents,
        String outcome,
        String mender,
        @Nullable String phone,
        @Nullable String tags) {

    static final List<String> VILLAGES = List.of(
            "Alder Quay",
            "Thornmere",
            "Upper Sallow",
            "Lower Sallow",
            "Hexley Green",
            "Cobble End",
            "Marlow Fold",
            "Pennywick",
            "Staithe Bridge",
            "Oatherby",
            "Winnow Hill",
            "Fennick",
            "Gorse Hollow",
            "Tarn Lacey");

    static final List<String> ITEMS = List.of(
            "desk lamp",
            "kettle",
            "rocking chair",
            "radio",
            "radio, valve",
            "toaster",
            "brass hinge",
            "lamp shade",
            "sewing machine",
            "mantel clock",
            "bicycle pump",
            "hand mixer",
            "garden shears",
            "music box",
            "step ladder",
            "café grinder",
            "wool winder",
            "door bell",
            "tea urn",
            "carpet sweeper");

    static final List<String> FAULTS = List.of(
            "will not switch on",
            "loose plug",
            "smells of burning",
            "cracked leg",
            "hums",
            "worn bearing",
            "handle missing",
            "blown fuse",
            "frayed cord",
            "stuck lid",
            "dented",
            "leaks at the seam");

    static final List<String> OUTCOMES =
            List.of("mended", "mended", "mended", "part ordered", "beyond repair", "waiting");

    static final List<String> MENDERS = List.of(
            "Ottoline Fenn",
            "Piers Wadlow",
            "Sunniva Grail",
            "Joss Appleyard",
            "Maud Thistlewood",
            "Ivo Pellam",
            "Renée Ostler",
            "Bartholomew Quince",
            "Dilys Harrow",
            "Corin Sedge");

    static final List<String> TAGS = List.of("electric", "wood", "urgent", "metal", "textile", "gift", "heirloom");

    /// The visit of that number; the same seed makes the same visit.
    public static Visit of(long seed, long number) {
        SplittableRandom random = new SplittableRandom(seed * 0x9E3779B97F4A7C15L + number * 0xBF58476D1CE4E5B9L);
        random = random.split();
        LocalDate received = LocalDate.of(2026, 1, 3).plusDays(random.nextInt(300));
        LocalDateTime recorded = received.atTime(9 + random.nextInt(9), random.nextInt(60));
        return new Visit(
                number,
                recorded,
                received,
                pick(VILLAGES, random),
                pick(ITEMS, random),
                random.nextInt(8) == 0 ? null : pick(FAULTS, random),
                random.nextInt(12) == 0 ? null : 80 + random.nextInt(24_000),
                random.nextInt(6) == 0
                        ? null
                        : random.nextInt(30) == 0 ? 100_000 + random.nextInt(400_000) : random.nextInt(9_000),
                pick(OUTCOMES, random),
                pick(MENDERS, random),
                random.nextInt(3) == 0
                        ? null
                        : String.format("07%03d %06d", random.nextInt(1000), random.nextInt(1_000_000)),
                tags(random));
    }

    private static @Nullable String tags(SplittableRandom random) {
        int first = random.nextInt(TAGS.size() + 2);
        if (first >= TAGS.size()) {
            return null;
        }
        int second = random.nextInt(TAGS.size());
        return first == second ? TAGS.get(first) : TAGS.get(first) + "," + TAGS.get(second);
    }

    private static String pick(List<String> choices, SplittableRandom random) {
        return choices.get(random.nextInt(choices.size()));
    }

    /// The first note of a visit that was written down twice: earlier, and not finished yet.
    Visit firstNote() {
        return new Visit(
                number,
                recordedAt.minusDays(7),
                received,
                village,
                item,
                fault,
                weightGrams,
                costCents,
                "waiting",
                mender,
                phone,
                tags);
    }
}
