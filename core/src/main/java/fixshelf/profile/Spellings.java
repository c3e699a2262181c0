package fixshelf.profile;

import fixshelf.profile.ColumnTally.Counted;
import fixshelf.profile.ColumnTally.Group;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/// Values that are another value, spelled otherwise: other capitals, accents or inner blanks; or one letter away from
/// a value that is much commoner.
///
/// @param otherwise values whose fold is that of a commoner value
/// @param near values of five letters or more, without a digit, one letter away from a value ten times as common
record Spellings(Group otherwise, String example, Group near, String nearExample) {
    private static final int MOST_DISTINCT = 5_000;
    private static final int FEWEST_LETTERS = 5;
    private static final int MUCH_COMMONER = 10;
    private static final int LONGEST = 60;
    private static final Pattern MARKS = Pattern.compile("\\p{M}+");
    private static final Pattern BLANKS = Pattern.compile("[\\s\\p{Z}]+");

    static Spellings of(List<Counted> values) {
        Map<String, List<Counted>> folds = new LinkedHashMap<>();
        for (Counted counted : values) {
            if (counted.value().length() <= LONGEST) {
                String fold = fold(counted.value());
                if (!fold.isEmpty()) {
                    folds.computeIfAbsent(fold, _ -> new ArrayList<>()).add(counted);
                }
            }
        }
        Group otherwise = new Group();
        String example = "";
        Map<String, Counted> best = new LinkedHashMap<>();
        for (Map.Entry<String, List<Counted>> entry : folds.entrySet()) {
            Counted usual = entry.getValue().stream()
                    .max(Comparator.comparingLong(Counted::rows).thenComparing(Counted::value))
                    .orElseThrow();
            long all = entry.getValue().stream().mapToLong(Counted::rows).sum();
            best.put(entry.getKey(), new Counted(tidied(usual.value()), all));
            for (Counted counted : entry.getValue()) {
                // What differs by blanks at the ends alone is told elsewhere.
                if (!tidied(counted.value()).equals(tidied(usual.value()))) {
                    otherwise.add(counted.value(), counted.rows());
                    if (example.isEmpty()) {
                        example = tidied(counted.value()) + " for " + tidied(usual.value());
                    }
                }
            }
        }
        return near(best, folds, otherwise, example);
    }

    private static Spellings near(
            Map<String, Counted> best, Map<String, List<Counted>> folds, Group otherwise, String example) {
        Group near = new Group();
        String nearExample = "";
        if (best.size() <= MOST_DISTINCT) {
            Map<String, List<String>> cut = new HashMap<>();
            best.keySet().stream()
                    .filter(f -> f.length() >= FEWEST_LETTERS && f.chars().noneMatch(Character::isDigit))
                    .forEach(f -> {
                        cut.computeIfAbsent(f, _ -> new ArrayList<>()).add(f);
                        for (int i = 0; i < f.length(); i++) {
                            String shorter = f.substring(0, i) + f.substring(i + 1);
                            List<String> same = cut.computeIfAbsent(shorter, _ -> new ArrayList<>());
                            if (!same.contains(f)) {
                                same.add(f);
                            }
                        }
                    });
            Map<String, String> usual = new LinkedHashMap<>();
            cut.values().stream().filter(c -> c.size() > 1).forEach(c -> {
                for (String rare : c) {
                    for (String common : c) {
                        if (best.get(rare).rows() * MUCH_COMMONER
                                        <= best.get(common).rows()
                                && isOneLetter(rare, common)) {
                            usual.put(rare, common);
                        }
                    }
                }
            });
            for (String rare : best.keySet()) {
                if (usual.containsKey(rare)) {
                    folds.get(rare).forEach(c -> near.add(c.value(), c.rows()));
                    if (nearExample.isEmpty()) {
                        nearExample = best.get(rare).value() + " beside "
                                + best.get(usual.get(rare)).value();
                    }
                }
            }
        }
        return new Spellings(otherwise, example, near, nearExample);
    }

    /// Whether one letter more, less, or another in its place makes one of the other.
    private static boolean isOneLetter(String a, String b) {
        int from = 0;
        int shorter = Math.min(a.length(), b.length());
        while (from < shorter && a.charAt(from) == b.charAt(from)) {
            from++;
        }
        int to = 0;
        while (to < shorter - from && a.charAt(a.length() - 1 - to) == b.charAt(b.length() - 1 - to)) {
            to++;
        }
        return Math.max(a.length(), b.length()) - from - to == 1;
    }

    static String fold(String text) {
        String bare = text.chars().allMatch(c -> c < 128)
                ? text
                : MARKS.matcher(Normalizer.normalize(text, Normalizer.Form.NFKD))
                        .replaceAll("");
        return tidied(bare).toLowerCase(Locale.ROOT);
    }

    static String tidied(String text) {
        return BLANKS.matcher(text).replaceAll(" ").strip();
    }
}
