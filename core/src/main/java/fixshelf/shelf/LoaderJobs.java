package fixshelf.shelf;

import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Names;
import fixshelf.plan.Blank;
import fixshelf.plan.Line;
import fixshelf.plan.QueryValues;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.Problem;
import fixshelf.type.Literals;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.TemporalAccessor;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// A call of a loader as a job: its first line, with the arguments in their places, then its lines over what is read.
///
/// In the first line `{x}` and `{x:pattern}` stand for an argument; other names in braces are values of the shelf. In
/// an address of a page arguments are escaped, so that none of them leads to another page.
final class LoaderJobs {
    private static final Pattern PLACE = Pattern.compile("\\{([\\p{L}_][\\p{L}\\p{M}\\p{Nd}_]*)(?::([^{}]*))?}");

    private final Map<String, Object> values = new LinkedHashMap<>();
    private final List<Problem> problems = new ArrayList<>();
    private final Where where;

    private LoaderJobs(Where where) {
        this.where = where;
    }

    /// The job; what is wrong with the call are its problems.
    ///
    /// @param caller as it is named where it is read
    /// @param line the loader with its arguments, strict or not
    /// @param where the call stands
    static JobPage job(Shelf shelf, String caller, Line line, Where where) {
        LoaderJobs call = new LoaderJobs(where);
        Optional<TableFixPage> page = shelf.loader(line.call());
        List<JobPage.PlacedLine> lines =
                page.map(p -> call.lines(p, line.blanks(), line.strict())).orElse(List.of());
        if (page.isEmpty()) {
            call.noSuch(shelf, line.call());
        }
        return new JobPage(
                page.map(TableFixPage::file).orElse(shelf.root()),
                where.source(),
                caller,
                page.map(TableFixPage::title).orElse(caller),
                page.map(TableFixPage::prose).orElse(""),
                Map.of(),
                lines,
                List.of(),
                "",
                call.problems);
    }

    /// What a dataset reads, with the types of its columns.
    static JobPage typed(DatasetPage page, DatasetPage.Typed types) {
        Line first = new Line(
                Line.READ_FILE,
                Map.of(
                        Line.SOURCE,
                        Written.word(page.name()),
                        "file",
                        Written.word(page.options().path())));
        Map<String, Written> named = new LinkedHashMap<>();
        types.types().forEach((column, type) -> named.put(column, Written.word(type)));
        Line typed = named.isEmpty()
                ? new Line("read_declared", Map.of(), "", types.strict(), false)
                : new Line("read_as", Map.of("types", new Written.Fields(named)), "", types.strict(), false);
        return new JobPage(
                page.file(),
                page.source(),
                page.name(),
                page.name(),
                page.about(),
                Map.of(),
                List.of(
                        new JobPage.PlacedLine(first, "", types.span()),
                        new JobPage.PlacedLine(typed, "", types.span())),
                List.of(),
                "",
                page.problems());
    }

    /// The line that reads, with these arguments in it.
    static Outcome<Line> read(TableFixPage page, Map<String, Written> arguments) {
        LoaderJobs call = new LoaderJobs(Where.nowhere(page.name()));
        List<JobPage.PlacedLine> lines = call.lines(page, arguments, false);
        return call.problems.isEmpty() ? Outcome.of(lines.getFirst().line()) : Outcome.failed(call.problems);
    }

    /// What is wrong with calls for the rows of a table, before any of them is made.
    static List<Problem> problems(Shelf shelf, DatasetPage.Call call, Where where) {
        LoaderJobs calls = new LoaderJobs(where);
        call.each().ifPresent(each -> {
            if (shelf.dataset(each.table()).isEmpty() && shelf.job(each.table()).isEmpty()) {
                List<String> known = Stream.concat(
                                shelf.datasets().stream().map(DatasetPage::name),
                                shelf.jobs().stream().map(JobPage::name))
                        .toList();
                calls.problem(
                        Code.NO_SUCH,
                        "There is no dataset or job " + each.table() + " on this shelf.",
                        Names.suggest(each.table(), known, "Name another."));
            }
            Optional<TableFixPage> page = shelf.loader(call.loader());
            if (page.isEmpty()) {
                calls.noSuch(shelf, call.loader());
                return;
            }
            Set<String> given = new LinkedHashSet<>(call.arguments().keySet());
            given.addAll(each.from().keySet());
            calls.wantKnown(page.get(), given);
            page.get().parameters().stream()
                    .filter(b -> !given.contains(b.name()) && b.fallback().isEmpty())
                    .forEach(b ->
                            calls.problem(Code.ARGUMENTS, page.get().name() + " needs " + b.name() + ".", b.about()));
        });
        return calls.problems;
    }

    private void noSuch(Shelf shelf, String loader) {
        List<String> known = shelf.tableFixes().stream()
                .filter(TableFixPage::isLoader)
                .map(TableFixPage::name)
                .toList();
        problem(
                Code.NO_SUCH,
                "There is no loader " + loader + " on this shelf.",
                Names.suggest(loader, known, "Write its page, with `kind: loader`."));
    }

    private void wantKnown(TableFixPage page, Set<String> arguments) {
        List<String> known = page.parameters().stream().map(Blank::name).toList();
        arguments.stream()
                .filter(n -> !known.contains(n))
                .forEach(n -> problem(
                        Code.ARGUMENTS,
                        page.name() + " has no parameter " + n + ".",
                        Names.suggest(
                                n,
                                known,
                                known.isEmpty()
                                        ? "It takes no arguments."
                                        : "It takes " + String.join(", ", known) + ".")));
    }

    private void problem(Code code, String what, String todo) {
        problems.add(Problem.error(code, where, what, todo));
    }

    private List<JobPage.PlacedLine> lines(TableFixPage page, Map<String, Written> arguments, boolean strict) {
        page.problems().stream()
                .filter(Problem::isError)
                .findFirst()
                .ifPresent(p -> problem(
                        p.code(),
                        "The loader " + page.name() + " cannot be used: " + p.what(),
                        "Mend that page first."));
        wantKnown(page, arguments.keySet());
        page.parameters().forEach(b -> take(page, b, Optional.ofNullable(arguments.get(b.name()))));
        if (!problems.isEmpty()) {
            return List.of();
        }
        JobPage.PlacedLine read = page.read().orElseThrow();
        Map<String, Written> filled = new LinkedHashMap<>();
        boolean isPage = read.line().written("kind").equals(Optional.of(Written.word("web")));
        read.line().blanks().forEach((blank, written) -> filled.put(blank, filled(blank, written, isPage)));
        Line first = new Line(read.line().call(), filled);
        Line rest = new Line(page.callOfLines(), arguments, "", strict, false);
        return List.of(new JobPage.PlacedLine(first, "", where.span()), new JobPage.PlacedLine(rest, "", where.span()));
    }

    private void take(TableFixPage page, Blank<?> blank, Optional<Written> given) {
        Optional<Written> written = given.or(blank::fallback);
        if (written.isEmpty()) {
            problem(Code.ARGUMENTS, page.name() + " needs " + blank.name() + ".", blank.about());
            return;
        }
        Outcome<?> read = blank.kind().read(written.get(), JobPages.NO_COLUMNS);
        read.problems()
                .forEach(p -> problems.add(
                        new Problem(p.code(), p.severity(), where, blank.name() + ": " + p.what(), p.todo())));
        if (read.value().orElse(null) instanceof Expr.Literal(Object value, var _) && value != null) {
            values.put(blank.name(), value);
        } else if (read.isPresent()) {
            problem(Code.NOT_CONSTANT, blank.name() + " must be a value.", "Write the value itself.");
        }
    }

    private Written filled(String blank, Written written, boolean isPage) {
        return switch (written) {
            case Written.Word(String text) -> Written.word(filled(blank, text, isPage && blank.equals("file")));
            case Written.Items(List<Written> items) ->
                new Written.Items(
                        items.stream().map(i -> filled(blank, i, isPage)).toList());
            case Written.Fields _ -> written;
        };
    }

    private String filled(String blank, String text, boolean escaped) {
        Matcher matcher = PLACE.matcher(text);
        if (blank.equals("query")) {
            matcher.results()
                    .filter(m -> m.group(2) != null && values.containsKey(m.group(1)))
                    .forEach(m -> problem(
                            Code.BAD_FIELD,
                            "A query takes " + m.group(1) + " as the value that it is, and no pattern: " + m.group()
                                    + ".",
                            "Write {" + m.group(1) + "}, and what is made of it in SQL."));
            return QueryValues.filled(text, values);
        }
        StringBuilder out = new StringBuilder();
        while (matcher.find()) {
            Object value = values.get(matcher.group(1));
            if (value == null) {
                continue;
            }
            String said = said(matcher.group(1), value, matcher.group(2));
            if (PLACE.matcher(said).find()) {
                problem(
                        Code.BAD_FIELD,
                        matcher.group(1) + " would be read as a value of the shelf: " + said + ".",
                        "Leave the braces out of it.");
            }
            // The signs of a pattern are the author's.
            String part = escaped && value instanceof String
                    ? URLEncoder.encode(said, StandardCharsets.UTF_8).replace("+", "%20")
                    : said;
            matcher.appendReplacement(out, Matcher.quoteReplacement(part));
        }
        return matcher.appendTail(out).toString();
    }

    /// A value as it stands in a path: days as `2026-03-01`, or as their pattern says; numbers with so many digits as
    /// the pattern has zeros.
    private String said(String name, Object value, @Nullable String pattern) {
        if (pattern == null) {
            return value instanceof LocalDateTime t
                    ? Literals.time(t)
                    : value instanceof java.math.BigDecimal d ? d.toPlainString() : value.toString();
        }
        if ((value instanceof LocalDate || value instanceof LocalDateTime) && pattern.matches("[yMdHmsS\\W_0-9]+")) {
            try {
                return DateTimeFormatter.ofPattern(pattern.replace('y', 'u'), Locale.ROOT)
                        .format((TemporalAccessor) value);
            } catch (IllegalArgumentException | java.time.DateTimeException e) {
                // Said below.
            }
        }
        if (value instanceof Number n && pattern.matches("0+")) {
            String digits = new java.math.BigDecimal(n.toString()).toPlainString();
            return "0".repeat(Math.max(0, pattern.length() - digits.length())) + digits;
        }
        problem(
                Code.BAD_FIELD,
                "{" + name + ":" + pattern + "} is no pattern for " + value + ".",
                "For a day write yyyy, yy, M, MM, d, dd and signs between; for a number as many zeros as it has digits.");
        return "";
    }
}
