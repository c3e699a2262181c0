package fixshelf.standin;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.profile.DataLook;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

/// A word, or a whole value, that so many rows share that it says nothing of any of them: what a job asks for by name.
/// It stays in a stand-in only if its user agrees.
///
/// @param text as it is written most often
/// @param rows how many rows of the column hold it
/// @param share the part of the rows with it, 0 to 1
public record SharedWord(String dataset, String column, String text, long rows, double share) {
    /// A word is offered that so large a part of the rows hold.
    public static final double LEAST_SHARE = 0.01;

    private static final long FEWEST_ROWS = 5;
    private static final int LONGEST = 60;

    /// What may be kept of datasets, column by column, the commonest first. Words are offered of values that are not
    /// offered as a whole.
    public static Outcome<List<SharedWord>> of(List<Staged> datasets) {
        return DataLook.guarded(() -> {
            List<SharedWord> all = new ArrayList<>();
            datasets.forEach(d -> all.addAll(of(d.name(), d.look())));
            return all;
        });
    }

    /// Those that are meant by words that a user typed; a word that few rows share is a problem.
    public static Outcome<List<SharedWord>> named(List<SharedWord> shared, List<String> typed) {
        List<SharedWord> named = new ArrayList<>();
        for (String word : typed) {
            String key = Runs.of(word).key();
            List<SharedWord> same = shared.stream()
                    .filter(w -> Runs.of(w.text()).key().equals(key))
                    .toList();
            if (same.isEmpty()) {
                return Outcome.failed(Problem.about(
                        Code.ARGUMENTS,
                        word,
                        "“" + word + "” is not shared by enough rows to be kept: at least one in a hundred, and five,"
                                + " hold a word that may stay.",
                        "Leave it out; stand-in without --to lists what may be kept."));
            }
            named.addAll(same);
        }
        return Outcome.of(named);
    }

    private static List<SharedWord> of(String dataset, DataLook data) {
        List<SharedWord> all = new ArrayList<>();
        for (int i = 0; i < data.file().columns().size(); i++) {
            Column column = new Column(Math.max(FEWEST_ROWS, (long) Math.ceil(data.rows() * LEAST_SHARE)));
            data.eachValue(i, column::value);
            data.eachValue(i, column::words);
            String name = data.file().columns().get(i).name();
            column.shared()
                    .forEach(t ->
                            all.add(new SharedWord(dataset, name, t.usual, t.rows, t.rows / (double) data.rows())));
        }
        return all;
    }

    /// What spellings of one text have together.
    private static final class Tally {
        private String usual = "";
        private long most;
        private long rows;

        void add(String text, long n) {
            rows += n;
            if (n > most || n == most && text.compareTo(usual) < 0) {
                most = n;
                usual = text;
            }
        }
    }

    private static final class Column {
        /// Parts that stand close together are a list of words, and no value to be kept as a whole.
        private static final Pattern LIST = Pattern.compile("[\\p{L},;|][,;|][\\p{L},;|]");

        private final long least;
        private final Map<String, Tally> values = new HashMap<>();
        private final Map<String, Tally> words = new HashMap<>();

        Column(long least) {
            this.least = least;
        }

        void value(String value, long rows) {
            if (value.length() <= LONGEST
                    && !LIST.matcher(value).find()
                    && value.codePoints().anyMatch(Character::isLetter)) {
                values.computeIfAbsent(Runs.of(value).key(), _ -> new Tally()).add(value.strip(), rows);
            }
        }

        private boolean isShared(String key) {
            Tally tally = values.get(key);
            return tally != null && tally.rows >= least;
        }

        /// The words of values that few rows share.
        void words(String value, long rows) {
            if (isShared(Runs.of(value).key())) {
                return;
            }
            Set<String> seen = new HashSet<>();
            for (String word : value.split("[^\\p{L}\\p{M}]+")) {
                String key = Runs.of(word).key();
                if (!key.isEmpty() && seen.add(key)) {
                    words.computeIfAbsent(key, _ -> new Tally()).add(word, rows);
                }
            }
        }

        List<Tally> shared() {
            List<Tally> all = new ArrayList<>(values.values());
            all.addAll(words.values());
            all.removeIf(t -> t.rows < least);
            all.sort(Comparator.comparingLong((Tally t) -> -t.rows).thenComparing(t -> t.usual));
            return all;
        }
    }
}
