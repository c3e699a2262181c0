package fixshelf.demo;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// A mending room and its way to keep records.
enum Room {
    ALDER_QUAY(
            "visits-alder-quay.csv",
            "AQ",
            ';',
            "\n",
            StandardCharsets.UTF_8,
            false,
            "visit_no;recorded_at;received;village;item;fault;weight_kg;parts_cost;outcome;mender;phone;tags",
            Room::alderQuay),
    THORNMERE(
            "visits-thornmere.csv",
            "TM",
            ',',
            "\n",
            StandardCharsets.ISO_8859_1,
            false,
            "Visit No,Recorded,Received On,Village,Item ,Fault (if known),Weight kg,Parts £,Result,Mended By,Phone"
                    + " No.,Labels",
            Room::thornmere),
    UPPER_SALLOW(
            "visits-upper-sallow.tsv",
            "US",
            '\t',
            "\r\n",
            StandardCharsets.UTF_8,
            true,
            "VISIT#\tRECORDED AT\tRECEIVED\tVILLAGE\tITEM\tFAULT\tWEIGHT\tCOST\tOUTCOME\tMENDER\tPHONE\tTAGS",
            Room::upperSallow);

    final String file;
    final String prefix;
    final char separator;
    final String lineEnd;
    final Charset charset;
    final boolean mark;
    final String heading;
    private final BiFunction<Visit, SplittableRandom, List<String>> fields;

    Room(
            String file,
            String prefix,
            char separator,
            String lineEnd,
            Charset charset,
            boolean mark,
            String heading,
            BiFunction<Visit, SplittableRandom, List<String>> fields) {
        this.file = file;
        this.prefix = prefix;
        this.separator = separator;
        this.lineEnd = lineEnd;
        this.charset = charset;
        this.mark = mark;
        this.heading = heading;
        this.fields = fields;
    }

    private static final DateTimeFormatter MINUTES = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);
    private static final DateTimeFormatter BRITISH = DateTimeFormatter.ofPattern("dd/MM/yyyy", Locale.ROOT);
    private static final DateTimeFormatter DOTTED = DateTimeFormatter.ofPattern("d.M.yyyy", Locale.ROOT);

    /// A line of the room's file.
    String line(Visit visit, SplittableRandom random) {
        return fields.apply(visit, random).stream()
                        .map(f -> f.indexOf(separator) >= 0 || f.indexOf('"') >= 0 || f.indexOf('\n') >= 0
                                ? '"' + f.replace("\"", "\"\"") + '"'
                                : f)
                        .collect(Collectors.joining(String.valueOf(separator)))
                + lineEnd;
    }

    String visitNo(Visit visit) {
        return prefix + "-" + String.format("%05d", visit.number());
    }

    private static List<String> alderQuay(Visit v, SplittableRandom r) {
        return List.of(
                ALDER_QUAY.visitNo(v),
                v.recordedAt().format(MINUTES),
                r.nextInt(5) == 0 ? v.received().format(BRITISH) : v.received().toString(),
                spaced(v.village(), r),
                spaced(v.item(), r),
                missing(v.fault(), r),
                weight(v.weightGrams(), r),
                cost(v.costCents(), r),
                v.outcome(),
                spaced(v.mender(), r),
                missing(v.phone(), r),
                list(v.tags(), r));
    }

    private static List<String> thornmere(Visit v, SplittableRandom r) {
        return List.of(
                THORNMERE.visitNo(v),
                v.recordedAt().format(MINUTES),
                v.received().format(BRITISH),
                spaced(v.village(), r).toUpperCase(Locale.ROOT),
                r.nextInt(30) == 0 ? v.item().replace(" ", "\n") : spaced(v.item(), r),
                missing(v.fault(), r),
                weight(v.weightGrams(), r),
                cost(v.costCents(), r),
                code(v.outcome()),
                v.mender(),
                missing(v.phone(), r),
                list(v.tags(), r));
    }

    private static List<String> upperSallow(Visit v, SplittableRandom r) {
        return List.of(
                UPPER_SALLOW.visitNo(v),
                v.recordedAt().format(MINUTES),
                v.received().format(DOTTED),
                v.village(),
                r.nextInt(9) == 0 ? v.item().replace(' ', '\u00A0') : spaced(v.item(), r),
                missing(v.fault(), r),
                weight(v.weightGrams(), r),
                cost(v.costCents(), r),
                v.outcome().toUpperCase(Locale.ROOT),
                spaced(v.mender(), r),
                missing(v.phone(), r),
                list(v.tags(), r));
    }

    private static String spaced(String text, SplittableRandom r) {
        return switch (r.nextInt(12)) {
            case 0 -> text + " ";
            case 1 -> "  " + text.replace(" ", "   ");
            case 2 -> text.replace(" ", "  ");
            default -> text;
        };
    }

    private static String missing(@Nullable String text, SplittableRandom r) {
        return text != null ? text : List.of("", "N/A", "n/a", "none", "–").get(r.nextInt(5));
    }

    private static String weight(@Nullable Integer grams, SplittableRandom r) {
        if (grams == null) {
            return List.of("", "N/A", "?", "–").get(r.nextInt(4));
        }
        String kilos = String.format(Locale.ROOT, "%.2f", grams / 1000.0);
        return r.nextInt(10) == 0 ? kilos + " kg" : kilos;
    }

    private static String cost(@Nullable Integer cents, SplittableRandom r) {
        if (cents == null) {
            return List.of("", "none", "–").get(r.nextInt(3));
        }
        String amount = String.format(Locale.ROOT, cents >= 100_000 ? "%,.2f" : "%.2f", cents / 100.0);
        return r.nextInt(7) == 0 ? "£" + amount : amount;
    }

    private static String code(String outcome) {
        return switch (outcome) {
            case "mended" -> "M";
            case "part ordered" -> "P";
            case "beyond repair" -> "X";
            default -> "W";
        };
    }

    private static String list(@Nullable String tags, SplittableRandom r) {
        if (tags == null) {
            return "";
        }
        return switch (r.nextInt(6)) {
            case 0 -> "," + tags;
            case 1 -> tags.replace(",", ",,") + ",";
            default -> tags;
        };
    }
}
