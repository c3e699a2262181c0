package fixshelf.cli;

import fixshelf.check.Bounds;
import fixshelf.check.CaseResult;
import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngine;
import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Constants;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "try",
        mixinStandardHelpOptions = true,
        description = {
            "Call a fix, or a loader, at once and print what it gives.",
            "An argument is taken as it is typed where the parameter is a text; 'NULL' alone is missing. Other types are"
                    + " written as in cases: 42, TRUE, DATE '2026-02-07'. One by name is written name=value."
        })
final class TryCommand extends ShelfOption {
    @Parameters(index = "0", paramLabel = "FIX", description = "The fix.")
    String name = "";

    @Parameters(index = "1..*", paramLabel = "ARGUMENT", description = "Its arguments, in order or by name.")
    List<String> given = new ArrayList<>();

    @Option(
            names = "--in",
            paramLabel = "LANGUAGE",
            split = ",",
            description = "In this language; duckdb when left out. May be repeated.")
    List<String> languages = new ArrayList<>();

    @Option(names = "--steps", description = "Print the value of every SET too.")
    boolean steps;

    @Override
    public Integer call() {
        return onShelf(this::tried);
    }

    private int tried(Shelf shelf) {
        Optional<FixPage> page = shelf.fix(name);
        Optional<List<FixEngine>> engines = engines(languages.isEmpty() ? List.of("duckdb") : languages);
        if (page.isEmpty() && shelf.loader(name).isPresent()) {
            return new TriedLoader(this, shelf, shelf.loader(name).get()).run(given);
        }
        if (page.isEmpty()) {
            return unknown(
                    "fix", name, shelf.fixes().stream().map(FixPage::name).toList());
        }
        if (engines.isEmpty()) {
            return Output.WRONG_USE;
        }
        Outcome<Definition> fix = shelf.definition(page.get());
        if (!fix.isPresent()) {
            return Output.problems(out(), err(), fix.problems(), json);
        }
        Optional<List<Expr.Literal>> row = arguments(fix.get());
        return row.map(r -> run(fix.get(), r, engines.get())).orElse(Output.WRONG_USE);
    }

    private Optional<List<Expr.Literal>> arguments(Definition fix) {
        List<Parameter> parameters = fix.parameters();
        List<Optional<String>> texts = new ArrayList<>();
        parameters.forEach(_ -> texts.add(Optional.empty()));
        int next = 0;
        for (String argument : given) {
            int named = byName(parameters, argument);
            int at = named >= 0 ? named : next++;
            if (at >= parameters.size()) {
                err().println(fix.name() + " has no place for " + argument + ". It is " + fix.signature() + ".");
                return Optional.empty();
            }
            texts.set(at, Optional.of(named >= 0 ? argument.substring(argument.indexOf('=') + 1) : argument));
        }
        List<Expr.Literal> row = new ArrayList<>();
        for (int i = 0; i < parameters.size(); i++) {
            Optional<Expr.Literal> value = value(fix, parameters.get(i), texts.get(i));
            if (value.isEmpty()) {
                return Optional.empty();
            }
            row.add(value.get());
        }
        return Optional.of(row);
    }

    private static int byName(List<Parameter> parameters, String argument) {
        for (int i = 0; i < parameters.size(); i++) {
            if (argument.regionMatches(
                    true,
                    0,
                    parameters.get(i).name() + "=",
                    0,
                    parameters.get(i).name().length() + 1)) {
                return i;
            }
        }
        return -1;
    }

    private Optional<Expr.Literal> value(Definition fix, Parameter parameter, Optional<String> text) {
        if (text.isEmpty()) {
            if (parameter.fallback().isEmpty()) {
                err().println(fix.name() + " needs " + parameter.name() + ". It is " + fix.signature() + ".");
            }
            return parameter.fallback();
        }
        if (text.get().equals("NULL")) {
            return Optional.of(new Expr.Literal(null, parameter.type()));
        }
        if (parameter.type() instanceof Type.Text) {
            return Optional.of(Expr.Literal.text(text.get()));
        }
        Optional<Expr.Literal> read = WrittenConstants.read(parameter.name(), inQuotes(parameter.type(), text.get()))
                .value()
                .flatMap(v -> v);
        Optional<Expr.Literal> fits = read.filter(
                        v -> Constants.fits(Arithmetic.held(v, parameter.type()), parameter.type()))
                .map(v -> Constants.converted(v, parameter.type()));
        if (fits.isEmpty()) {
            err().println(parameter.name() + " is " + parameter.type().label() + ", and " + text.get() + " is none."
                    + (text.get().matches("[\\p{L}_][\\p{L}\\p{N}_]*=.*") ? " It is " + fix.signature() + "." : ""));
        }
        return fits;
    }

    /// A day or a time may be typed as it is.
    private static String inQuotes(Type type, String text) {
        String bare = text.strip().replaceFirst("^(?i:(DATE|TIMESTAMP) +)?'(.*)'$", "$2");
        return switch (type) {
            case Type.Date _ -> "DATE '" + bare + "'";
            case Type.Timestamp _ -> "TIMESTAMP '" + bare + "'";
            default -> text;
        };
    }

    private int run(Definition fix, List<Expr.Literal> row, List<FixEngine> engines) {
        boolean fails = false;
        Optional<Problem> reached = Optional.empty();
        var document = Output.object().put("fix", fix.name());
        for (FixEngine engine : engines) {
            String title = engine.language().title();
            if (!engine.presence().isHere()) {
                out().println(title + ": not run, " + engine.presence().sentence());
                fails = true;
                continue;
            }
            List<Evaluation> asked = new ArrayList<>();
            List<String> labels = new ArrayList<>();
            if (steps) {
                for (int i = 0; i < fix.body().assignments().size(); i++) {
                    labels.add(fix.body().assignments().get(i).name());
                    asked.add(new Evaluation(upTo(fix, i), List.of(row)));
                }
            }
            labels.add("result");
            asked.add(new Evaluation(fix, List.of(row)));
            List<List<Answer>> answers = engine.run(asked);
            reached = reached.or(
                    () -> Bounds.reached(engine, fix, row, answers.getLast().getFirst()));
            for (int i = 0; i < labels.size(); i++) {
                Answer answer = answers.get(i).getFirst();
                fails |= !(answer instanceof Answer.Value);
                if (json) {
                    Output.value(document.withObject("/" + engine.language().id()), labels.get(i), answer);
                } else {
                    String label = steps ? labels.get(i) + " = " : "";
                    out().println((engines.size() > 1 ? title + ": " : "") + label + shown(answer));
                }
            }
        }
        reached.ifPresent(p -> document.put("problem", p.what()));
        if (json) {
            Output.json(out(), document);
        }
        if (reached.isPresent()) {
            return Output.problems(out(), err(), List.of(reached.get()), false);
        }
        return fails ? Output.PROBLEMS : Output.FINE;
    }

    /// The fix that gives the value of one of its `SET` names.
    private static Definition upTo(Definition fix, int index) {
        Body.Assignment last = fix.body().assignments().get(index);
        Body body = new Body(fix.body().assignments().subList(0, index), last.value());
        return new Definition(fix.name(), fix.parameters(), last.value().type(), body);
    }

    private static String shown(Answer answer) {
        return switch (answer) {
            case Answer.Value(Object value) -> CaseResult.shown(value);
            case Answer.Failed(String why) -> "error: " + why;
            case Answer.NotSaid(String why) -> why;
        };
    }
}
