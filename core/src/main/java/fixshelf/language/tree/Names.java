package fixshelf.language.tree;

import java.text.Normalizer;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// Names without regard to case, and the nearest ones to a name that is not known.
public final class Names {
    private Names() {}

    /// At most three of `known` that are near to `name`, nearest first.
    public static List<String> nearest(String name, Collection<String> known) {
        String wanted = name.toLowerCase(Locale.ROOT);
        int limit = Math.max(1, wanted.length() / 3);
        return known.stream()
                .filter(k -> k.length() <= LONGEST_COMPARED && wanted.length() <= LONGEST_COMPARED)
                .filter(k -> distance(wanted, k.toLowerCase(Locale.ROOT)) <= limit
                        || wanted.length() > 3 && k.toLowerCase(Locale.ROOT).contains(wanted))
                .sorted(Comparator.<String>comparingInt(k -> distance(wanted, k.toLowerCase(Locale.ROOT)))
                        .thenComparing(Comparator.naturalOrder()))
                .limit(3)
                .toList();
    }

    private static final int LONGEST = 63;

    /// Longer names are not compared letter by letter.
    private static final int LONGEST_COMPARED = 200;

    /// Why a fix, a parameter, a `SET`, a job or a dataset cannot be called so; empty when it can. Its name stands
    /// in code of every language and in the names of files, so it has letters of any script, digits and `_`, and no
    /// sign that means anything there. Letters that Python would take for others are refused too.
    public static Optional<String> problemWith(String name) {
        int[] points = name.codePoints().toArray();
        boolean begins = points.length > 0 && (Character.isLetter(points[0]) || points[0] == '_');
        boolean plain = begins && Arrays.stream(points).allMatch(Names::isPart);
        if (!plain) {
            return Optional.of("A name has letters, digits and _, and does not begin with a digit.");
        }
        if (points.length > LONGEST) {
            return Optional.of("A name has at most " + LONGEST + " letters.");
        }
        return Normalizer.isNormalized(name, Normalizer.Form.NFKC)
                ? Optional.empty()
                : Optional.of("A letter of this name is a form of another one, and languages would read that.");
    }

    static boolean isPart(int c) {
        int type = Character.getType(c);
        return c == '_'
                || Character.isLetter(c)
                || type == Character.DECIMAL_DIGIT_NUMBER
                || type == Character.NON_SPACING_MARK
                || type == Character.COMBINING_SPACING_MARK;
    }

    /// A sentence with the nearest names, or what else could be done.
    public static String suggest(String name, Collection<String> known, String otherwise) {
        List<String> near = nearest(name, known);
        return near.isEmpty() ? otherwise : "Nearest: " + String.join(", ", near) + ".";
    }

    private static final int FEW = 20;
    private static final Set<String> WORDS_FOR_ALL = Set.of("all", "every", "every column", "any", "*");

    /// What can be done where there is no column of that name: the nearest ones, or which there are.
    public static String suggestColumn(String name, Collection<String> columns) {
        if (WORDS_FOR_ALL.contains(name.strip().toLowerCase(Locale.ROOT))) {
            return "All of them are meant by `all columns`.";
        }
        return suggest(name, columns, "Columns: " + listed(columns) + (columns.size() > FEW ? "" : "."));
    }

    /// The first of them, in words; one that holds a comma stands in quotes.
    public static String listed(Collection<String> names) {
        return names.stream()
                        .limit(FEW)
                        .map(n -> n.contains(",") ? "“" + n + "”" : n)
                        .collect(Collectors.joining(", "))
                + (names.size() > FEW ? ", …" : "");
    }

    /// Edits between two words; two neighbours exchanged count as one.
    static int distance(String a, String b) {
        int[][] d = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            for (int j = 0; j <= b.length(); j++) {
                d[i][j] = cell(d, a, b, i, j);
            }
        }
        return d[a.length()][b.length()];
    }

    private static int cell(int[][] d, String a, String b, int i, int j) {
        if (i == 0 || j == 0) {
            return i + j;
        }
        int change = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
        int best = Math.min(d[i - 1][j - 1] + change, Math.min(d[i - 1][j], d[i][j - 1]) + 1);
        boolean exchanged = i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1);
        return exchanged ? Math.min(best, d[i - 2][j - 2] + 1) : best;
    }
}
