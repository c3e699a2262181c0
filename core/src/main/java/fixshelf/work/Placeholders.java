package fixshelf.work;

import fixshelf.language.tree.Names;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Puts values in the place of `{name}`.
final class Placeholders {
    private static final Pattern NAME = Pattern.compile("\\{([\\p{L}_][\\p{L}\\p{M}\\p{Nd}_]*)}");

    private Placeholders() {}

    /// The names that a text asks for.
    static List<String> names(String text) {
        return NAME.matcher(text).results().map(m -> m.group(1)).toList();
    }

    /// The path or address, the table and the user with their values.
    static Outcome<ReadOptions> fill(ReadOptions options, Map<String, String> values, Problem.Where where) {
        Outcome<ReadOptions> filled = fill(options.path(), values, where).map(options::withPath);
        return options.form().orElse(null) instanceof ReadOptions.Form.Server s
                ? filled.then(o -> fill(s.table(), values, where).then(table -> fill(s.user(), values, where)
                        .map(user -> o.withForm(new ReadOptions.Form.Server(
                                s.engine(), table, s.query(), user, s.passwordFrom(), s.seconds(), s.keep())))))
                : filled;
    }

    static Outcome<String> fill(String text, Map<String, String> values, Problem.Where where) {
        Matcher matcher = NAME.matcher(text);
        StringBuilder out = new StringBuilder();
        while (matcher.find()) {
            String value = values.get(matcher.group(1));
            if (value == null) {
                return Outcome.failed(Problem.error(
                        Code.NO_PARAMETER_VALUE,
                        where,
                        "There is no value for {" + matcher.group(1) + "}.",
                        Names.suggest(
                                matcher.group(1),
                                values.keySet(),
                                "Give it with --set " + matcher.group(1) + "=…, or in shelf.yaml.")));
            }
            matcher.appendReplacement(out, Matcher.quoteReplacement(value));
        }
        return Outcome.of(matcher.appendTail(out).toString());
    }
}
