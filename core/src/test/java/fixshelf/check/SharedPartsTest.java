package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.language.checking.BodyParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.render.Language;
import fixshelf.type.Type;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/// Code stays as large as what the author wrote, however often a name or a fix is used in it.
class SharedPartsTest {
    private static final Parameter X = new Parameter("x", Type.TEXT, Optional.empty(), "", false);

    /// Fixes by name, so that each can call those before it.
    private static final class Fixes implements Scope.Fixes {
        private final Map<String, Definition> all = new HashMap<>();

        @Override
        public Scope.Found find(String name) {
            return all.containsKey(name) ? new Scope.Found.Ready(all.get(name)) : new Scope.Found.Missing();
        }

        @Override
        public Collection<String> names() {
            return all.keySet();
        }

        Definition add(String name, String body) {
            Scope scope = new Scope(this);
            scope.add(new Scope.Binding("x", Type.TEXT, Scope.Kind.PARAMETER));
            SourceText text = new SourceText(name, body);
            Body read = BodyParser.parse(text, new Span(0, body.length()), scope, Type.TEXT)
                    .get();
            Definition fix = new Definition(name, List.of(X), Type.TEXT, read);
            all.put(name, fix);
            return fix;
        }
    }

    record Asked(Definition fix, Map<String, String> answers) {
        @Override
        public String toString() {
            return fix.name();
        }
    }

    private static List<Asked> all() {
        List<Asked> all = new ArrayList<>();
        // The check digit of a number of twelve digits: one name, used thirteen times.
        StringBuilder sum = new StringBuilder("SET d = regexp_replace(trim(x), '[^0-9]', '');\nSET s = ");
        for (int i = 1; i <= 12; i++) {
            sum.append(i == 1 ? "" : " + ")
                    .append(i % 2 == 0 ? "3 * " : "")
                    .append("to_integer(substring(d, ")
                    .append(i)
                    .append(", 1))");
        }
        sum.append(";\nRETURN CASE WHEN length(d) = 12 THEN to_text(mod(10 - mod(s, 10), 10)) END;");
        all.add(new Asked(
                new Fixes().add("check_digit", sum.toString()),
                Map.of("4006381333931".substring(0, 12), "1", "12", "∅")));
        Fixes chain = new Fixes();
        chain.add("f0", "RETURN left('b' || x, 5);");
        for (int i = 1; i < 40; i++) {
            String before = "f" + (i - 1) + "(x)";
            chain.add(
                    "f" + i,
                    "RETURN CASE WHEN " + before + " = '' THEN 'none' ELSE left(" + before + " || 'c', 5) END;");
        }
        all.add(new Asked(chain.all.get("f39"), Map.of("a", "baccc", "", "bcccc")));
        StringBuilder sets = new StringBuilder("SET s0 = trim(x) || ',b';\n");
        for (int i = 1; i <= 12; i++) {
            sets.append("SET s")
                    .append(i)
                    .append(" = CASE WHEN contains(s")
                    .append(i - 1)
                    .append(", 'zz') THEN s")
                    .append(i - 1)
                    .append(" ELSE remove_parts(s")
                    .append(i - 1)
                    .append(", ',', ARRAY['q', 'r']) END;\n");
        }
        all.add(new Asked(new Fixes().add("long_chain", sets + "RETURN s12;"), Map.of("a,q,r", "a,b", " r ", "b")));
        all.add(new Asked(
                new Fixes()
                        .add(
                                "parts",
                                "RETURN remove_parts(drop_empty_parts(regexp_replace(x, '[;/]+', ','), ','), ',', ARRAY['n/a', '-', 'x']);"),
                Map.of("a;;-/b,x,", "a,b")));
        return all;
    }

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void answersAndStaysSmall(FixEngine engine) {
        Engines.assumeHere(engine);
        List<Asked> all = all();
        List<List<Answer>> given = engine.run(all.stream()
                .map(asked -> new Evaluation(
                        asked.fix(),
                        asked.answers().keySet().stream()
                                .map(t -> List.of(Expr.Literal.text(t)))
                                .toList()))
                .toList());
        for (Asked asked : all) {
            List<Answer> answers = given.get(all.indexOf(asked));
            Language language = engine.language();
            String code = language.definition(asked.fix(), "").get();
            assertThat(code.length()).as(language.title() + " " + asked).isLessThan(200_000);
            boolean bound = language.id().equals("mariadb") && answers.getFirst() instanceof Answer.NotSaid;
            assertThat(bound ? List.of() : answers)
                    .as(language.title() + " " + asked)
                    .isEqualTo(
                            bound
                                    ? List.of()
                                    : asked.answers().values().stream()
                                            .map(v -> (Answer) new Answer.Value(v.equals("∅") ? null : v))
                                            .toList());
        }
    }

    /// As it is exported: a function that is made on the server and called, also where its expression is too long.
    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void answersAsAFunctionOfAServer(String server) throws Exception {
        FixEngine engine = Engines.of(server);
        Engines.assumeHere(engine);
        try (Connection connection = Engines.connection(engine);
                Statement statement = connection.createStatement()) {
            for (Asked asked : all()) {
                String code = engine.language().definition(asked.fix(), "").get();
                for (String function : code.split(";\n")) {
                    statement.execute(function);
                }
                for (Map.Entry<String, String> answer : asked.answers().entrySet()) {
                    String call = "SELECT coalesce(" + asked.fix().name() + "('" + answer.getKey() + "'), '∅')";
                    try (ResultSet row = statement.executeQuery(call)) {
                        assertThat(row.next()).isTrue();
                        assertThat(row.getString(1)).as(call).isEqualTo(answer.getValue());
                    }
                }
            }
        }
    }
}
