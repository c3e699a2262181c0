package fixshelf.desktop.data;

import fixshelf.desktop.parts.Ui;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.TableLook;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/// What was seen of a dataset, in words, and what is likeliest to be asked of it next.
final class SeenWords {
    private static final double NEARLY_ALL = 0.9;
    private static final int NOTES = 3;

    private SeenWords() {}

    /// `all 300 rows`
    static String rows(DataModel.Seen seen) {
        return (seen.table().whole() ? "all " : "the first ")
                + Ui.count(seen.table().rows(), "row", "rows");
    }

    /// How much was looked at, where it is from, and what is other than before.
    static String all(DataModel.Seen seen) {
        List<String> parts = new ArrayList<>(List.of(rows(seen) + " looked at"));
        if (!seen.table().whole()) {
            parts.add("looking at the others …");
        } else if (!seen.tried()) {
            parts.add("trying what would help …");
        }
        seen.problem().ifPresent(p -> parts.add(p.what()));
        seen.notes().stream().limit(NOTES).map(n -> n.replaceFirst("\\.$", "")).forEach(parts::add);
        if (seen.notes().size() > NOTES) {
            parts.add("and " + (seen.notes().size() - NOTES) + " more such notes");
        }
        if (!seen.other().isEmpty()) {
            int more = seen.other().size() - 2;
            parts.add("other than the counts that its page keeps: "
                    + String.join("; ", seen.other().stream().limit(2).toList())
                    + (more > 0 ? "; and " + more + " more" : ""));
        }
        seen.since().ifPresent(s -> parts.add(since(s)));
        return String.join(" · ", parts);
    }

    private static String since(DataModel.Since since) {
        String when = DateTimeFormatter.ofPattern("d MMMM, HH:mm", Locale.ENGLISH)
                .format(since.at().atZone(ZoneId.systemDefault()));
        if (since.differences().isEmpty()) {
            return "as on " + when;
        }
        String first = String.join("; ", since.differences().stream().limit(2).toList());
        int more = since.differences().size() - 2;
        return "other than on " + when + ": " + first + (more > 0 ? "; and " + more + " more" : "");
    }

    /// The column with the fewest values above one: it is the likeliest to be counted.
    static int likely(TableLook table) {
        return table.columns().stream()
                .filter(c -> c.distinct() > 1)
                .min(Comparator.comparingLong(ColumnLook::distinct))
                .map(ColumnLook::index)
                .orElse(0);
    }

    /// The column in which nearly every row has a value of its own.
    static String key(TableLook table) {
        return table.columns().stream()
                .filter(c -> c.distinct() > table.rows() * NEARLY_ALL)
                .findFirst()
                .map(ColumnLook::name)
                .orElse("");
    }
}
