package fixshelf.check;

import static fixshelf.check.TreeMeaning.known;
import static fixshelf.check.TreeMeaning.n;
import static fixshelf.check.TreeMeaning.s;

import fixshelf.language.tree.Expr;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/// What functions of lists, mappings and separated text mean, in plain Java.
final class PartsMeaning {
    private PartsMeaning() {}

    static @Nullable Object of(Expr.Call call, List<@Nullable Object> a) {
        if (call.function().name().equals("date_range")) {
            LocalDate last = (LocalDate) known(a, 1);
            LocalDate first = (LocalDate) known(a, 0);
            return last.isBefore(first)
                    ? List.of()
                    : first.datesUntil(last.plusDays(1)).toList();
        }
        if (call.function().name().equals("replace_each")) {
            String text = s(a, 0);
            for (Map.Entry<?, ?> pair : ((Map<?, ?>) known(a, 1)).entrySet()) {
                String search = (String) pair.getKey();
                text = search.isEmpty() ? text : text.replace(search, (String) pair.getValue());
            }
            return text;
        }
        String text = s(a, 0);
        if (call.function().name().equals("replace_until_same")) {
            if (s(a, 1).isEmpty()) {
                return text;
            }
            for (int i = 0; i < n(a, 3); i++) {
                text = text.replace(s(a, 1), s(a, 2));
            }
            return text.replace(s(a, 1), s(a, 2)).equals(text) ? text : null;
        }
        List<String> parts = Arrays.asList(text.split(Pattern.quote(s(a, 1)), -1));
        Object third = a.size() > 2 ? known(a, 2) : "";
        List<?> some = third instanceof List<?> list ? list : List.of(third);
        return switch (call.function().name()) {
            case "split_part" -> {
                long number = n(a, 2);
                long at = number > 0 ? number - 1 : parts.size() + number;
                yield at >= 0 && at < parts.size() ? parts.get((int) at) : null;
            }
            case "part_count" -> (long) parts.size();
            case "first_parts" -> joined(a, parts.stream().limit(n(a, 2)).toList());
            case "skip_parts" -> joined(a, parts.stream().skip(n(a, 2)).toList());
            case "skip_parts_in" ->
                joined(a, parts.stream().dropWhile(some::contains).toList());
            case "remove_part", "remove_parts" ->
                joined(a, parts.stream().filter(p -> !some.contains(p)).toList());
            case "sort_parts" ->
                joined(a, parts.stream().sorted(Meaning::compared).toList());
            case "unique_parts" -> joined(a, parts.stream().distinct().toList());
            case "keep_parts" -> joined(a, parts.stream().filter(some::contains).toList());
            case "drop_empty_parts" ->
                joined(a, parts.stream().filter(p -> !p.isEmpty()).toList());
            default -> throw TreeMeaning.unknown(call);
        };
    }

    private static String joined(List<@Nullable Object> a, List<String> parts) {
        return String.join(s(a, 1), parts);
    }
}
