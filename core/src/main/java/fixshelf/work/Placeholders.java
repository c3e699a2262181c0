package fixshelf.work;

import fixshelf.language.tree.Names;
import fixshelf.plan.InBraces;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.QueryValues;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.stream.Stream;

/// Puts values in the place of `{name}`.
final class Placeholders {
    private Placeholders() {}

    /// A line with values in the place of `{name}`, where that is all that stands in a blank, or in an item of one.
    /// Braces inside of other texts are ordinary signs, as they are in patterns and in code.
    static Line fill(Line line, Optional<Operation> operation, Map<String, String> values) {
        Map<String, Written> filled = new LinkedHashMap<>();
        line.blanks().forEach((blank, written) -> {
            boolean code = operation
                    .flatMap(o -> o.blank(blank))
                    .filter(b -> b.kind().isCode(written))
                    .isPresent();
            filled.put(blank, code ? written : InBraces.filled(written, values));
        });
        return filled.equals(line.blanks())
                ? line
                : new Line(line.call(), filled, line.name(), line.strict(), line.rest());
    }

    /// The names that the path or address asks for, and what of it is read.
    static List<String> names(ReadOptions options) {
        return Stream.concat(
                        Stream.of(options.path()),
                        switch (options.form().orElse(null)) {
                            case Form.Server s -> Stream.of(s.table(), s.user(), s.query());
                            case Form.Database d -> Stream.of(d.table(), d.query());
                            case Form.Workbook w -> Stream.of(w.sheet(), w.block());
                            case Form.Web w -> Stream.of(w.table());
                            case null, default -> Stream.of();
                        })
                .flatMap(text -> InBraces.names(text).stream())
                .toList();
    }

    /// The path or address, and what of it is read, with their values. Those of a query stay beside its text.
    static Outcome<ReadOptions> fill(ReadOptions options, Map<String, String> values, Problem.Where where) {
        boolean isFile = !(options.form().orElse(null) instanceof Form.Elsewhere);
        Outcome<ReadOptions> filled = fill(options.path(), values, where)
                .then(path -> isFile ? path(path, where) : Outcome.of(path))
                .map(options::withPath);
        return switch (options.form().orElse(null)) {
            case Form.Server s ->
                filled.then(o -> fill(s.table(), values, where).then(table -> fill(s.user(), values, where)
                        .map(user -> o.withForm(new Form.Server(
                                s.engine(),
                                table,
                                QueryValues.filled(s.query(), values),
                                user,
                                s.passwordFrom(),
                                s.seconds(),
                                s.keep())))));
            case Form.Database d ->
                filled.then(o -> fill(d.table(), values, where)
                        .map(table -> o.withForm(
                                new Form.Database(d.engine(), table, QueryValues.filled(d.query(), values)))));
            case Form.Workbook w ->
                filled.map(o -> o.withForm(new Form.Workbook(
                        known(w.sheet(), values), known(w.block(), values), w.errorsAsText(), w.serials())));
            case Form.Web w ->
                filled.map(o -> o.withForm(new Form.Web(known(w.table(), values), w.heading(), w.seconds(), w.keep())));
            case null, default -> filled;
        };
    }

    /// A text with the values that are known; a sheet may be called `{x}`.
    private static String known(String text, Map<String, String> values) {
        return InBraces.NAME
                .matcher(text)
                .replaceAll(m -> Matcher.quoteReplacement(values.getOrDefault(m.group(1), m.group())));
    }

    static Outcome<String> fill(String text, Map<String, String> values, Problem.Where where) {
        Matcher matcher = InBraces.NAME.matcher(text);
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

    /// As [#fill], of a path of a file, if this system can hold it.
    static Outcome<String> fillPath(String text, Map<String, String> values, Problem.Where where) {
        return fill(text, values, where).then(path -> path(path, where));
    }

    /// A path of a file, if this system can hold it: not every character has a place in the names of every system.
    static Outcome<String> path(String text, Problem.Where where) {
        try {
            Path.of(text);
            return Outcome.of(text);
        } catch (InvalidPathException e) {
            return Outcome.failed(
                    text.indexOf(0) >= 0
                            ? Problem.error(
                                    Code.BAD_FIELD,
                                    where,
                                    "The character U+0000 stands in it, which no path may hold.",
                                    "Take it out.")
                            : Problem.error(
                                    Code.BAD_FIELD,
                                    where,
                                    "This system cannot hold a file that is called “" + text + "”.",
                                    "Take such signs out; or, where they are letters, start Fix Shelf with LC_ALL=C.UTF-8"
                                            + " or another language in UTF-8."));
        }
    }
}
