package fixshelf.shelf;

import fixshelf.language.checking.BodyParser;
import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Span;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/// Compiles fixes when they are asked for, each once, and finds circles of calls.
final class FixCompiler implements Scope.Fixes {
    /// So many fixes are compiled faster one after the other.
    private static final int FEW = 40;

    private final Map<String, FixPage> pages = new LinkedHashMap<>();
    private final Map<String, Outcome<Definition>> done = new HashMap<>();
    private final Map<String, List<String>> circles = new HashMap<>();
    private final List<String> open = new ArrayList<>();

    FixCompiler(Collection<FixPage> all) {
        all.forEach(p -> pages.putIfAbsent(key(p.name()), p));
    }

    /// Compiles all fixes that have no problem, several at once. The others are left for [#compile], which goes through
    /// them in order, so that what it says of circles does not depend on the moment.
    synchronized void compileAll() {
        List<FixPage> left = pages.values().stream()
                .filter(p -> !done.containsKey(key(p.name())))
                .toList();
        if (left.size() < FEW) {
            return;
        }
        int parts = Math.max(1, Math.min(Runtime.getRuntime().availableProcessors(), left.size() / FEW));
        List<Map<String, Outcome<Definition>>> made = IntStream.range(0, parts)
                .parallel()
                .mapToObj(part -> alone(left.subList(left.size() * part / parts, left.size() * (part + 1) / parts)))
                .toList();
        made.forEach(some -> some.forEach(done::putIfAbsent));
    }

    private Map<String, Outcome<Definition>> alone(List<FixPage> some) {
        FixCompiler compiler = new FixCompiler(pages.values());
        some.forEach(compiler::compile);
        compiler.done.values().removeIf(o -> !o.problems().isEmpty());
        return compiler.done;
    }

    @Override
    public synchronized Scope.Found find(String name) {
        FixPage page = pages.get(key(name));
        if (page == null) {
            return new Scope.Found.Missing();
        }
        int at = open.indexOf(page.name());
        if (at >= 0) {
            List<String> circle = new ArrayList<>(open.subList(at, open.size()));
            circle.add(page.name());
            circle.forEach(member -> circles.put(member, circle));
            return new Scope.Found.Cyclic(circle);
        }
        Outcome<Definition> outcome = compile(page);
        List<String> circle = circles.get(page.name());
        boolean sameCircle = circle != null && !open.isEmpty() && circle.contains(open.getLast());
        if (sameCircle) {
            return new Scope.Found.Cyclic(circle);
        }
        return outcome.value()
                .<Scope.Found>map(Scope.Found.Ready::new)
                .orElseGet(() ->
                        new Scope.Found.Broken(outcome.problems().getFirst().what()));
    }

    @Override
    public Collection<String> names() {
        return pages.values().stream().map(FixPage::name).toList();
    }

    /// The definition of a page, or all its problems.
    synchronized Outcome<Definition> compile(FixPage page) {
        Outcome<Definition> known = done.get(key(page.name()));
        if (known != null && pages.get(key(page.name())) == page) {
            return known;
        }
        open.add(page.name());
        Outcome<Definition> outcome;
        try {
            outcome = compiled(page);
        } catch (StackOverflowError e) {
            outcome = Outcome.failed(Problem.error(
                    Code.TOO_DEEP,
                    new Problem.Where(page.source(), page.body().orElse(new Span(0, 0))),
                    "This body is nested too deeply.",
                    "Split it with SET, or into several fixes."));
        } finally {
            open.removeLast();
        }
        if (pages.get(key(page.name())) == page) {
            done.put(key(page.name()), outcome);
        }
        return outcome;
    }

    private Outcome<Definition> compiled(FixPage page) {
        List<Problem> problems = new ArrayList<>(page.problems());
        if (page.body().isPresent() && !page.parameters().isEmpty()) {
            Scope scope = new Scope(this);
            page.parameters().forEach(p -> scope.add(new Scope.Binding(p.name(), p.type(), Scope.Kind.PARAMETER)));
            Outcome<Body> body = BodyParser.parse(page.source(), page.body().get(), scope, page.returns());
            problems.addAll(body.problems());
            Optional<Expr> purpose = purpose(page, problems);
            if (problems.stream().noneMatch(p -> p.isError() && !page.isAboutCase(p))) {
                return Outcome.of(definition(page, body.get(), purpose), problems);
            }
        }
        return Outcome.failed(problems);
    }

    /// The condition under which the fix makes a value missing on purpose.
    private Optional<Expr> purpose(FixPage page, List<Problem> problems) {
        if (page.purposeSpan().isEmpty()) {
            return Optional.empty();
        }
        Scope scope = new Scope(this);
        page.parameters().forEach(p -> scope.add(new Scope.Binding(p.name(), p.type(), Scope.Kind.PARAMETER)));
        Outcome<Expr> read = ExpressionParser.parse("makes_missing", page.purpose(), scope);
        Problem.Where where =
                new Problem.Where(page.source(), page.purposeSpan().get());
        read.problems().forEach(p -> problems.add(Problem.error(p.code(), where, p.what(), p.todo())));
        if (read.isPresent() && !read.get().type().fits(Type.BOOLEAN)) {
            problems.add(Problem.error(
                    Code.WRONG_TYPE,
                    where,
                    "makes_missing is a condition, this is " + read.get().type().label() + ".",
                    "Write \"text = '-'\", say, or TRUE where the fix is for nothing else."));
        }
        return read.value();
    }

    private static Definition definition(FixPage page, Body body, Optional<Expr> purpose) {
        Set<String> fixed = BodyParser.fixedNames(body);
        List<Parameter> parameters = page.parameters().stream()
                .map(p -> new Parameter(
                        p.name(),
                        p.type(),
                        p.fallback(),
                        p.about(),
                        p.type().isFixed() || fixed.contains(key(p.name()))))
                .toList();
        return new Definition(page.name(), parameters, page.returns(), body, purpose);
    }

    private static String key(String name) {
        return name.toLowerCase(Locale.ROOT);
    }
}
