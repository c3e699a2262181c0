package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngines;
import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/// A day that is written in a layout and read in the same one is the same day, for every day of the calendar tried.
class DateRoundTripTest {
    private static final int DAYS = 500;

    @ParameterizedTest
    @ValueSource(
            strings = {
                "yyyy-MM-dd",
                "dd/MM/yyyy",
                "d/M/yyyy",
                "M.d.yyyy",
                "yyyyMMdd",
                "d MMM yyyy",
                "MMMM d, yyyy",
                "'on' d. MMMM yyyy"
            })
    void whatIsWrittenIsReadAgain(String layout) {
        String quoted = "'" + layout.replace("'", "''") + "'";
        Parameter day = new Parameter("day", Type.DATE, Optional.empty(), "", false);
        Scope scope = new Scope(Scope.Fixes.NONE);
        scope.add(new Scope.Binding("day", Type.DATE, Scope.Kind.PARAMETER));
        Expr body = ExpressionParser.parse("e", "to_date(format_date(\"day\", " + quoted + "), " + quoted + ")", scope)
                .get();
        Definition fix = new Definition("again", List.of(day), Type.DATE, new Body(List.of(), body));
        List<List<Expr.Literal>> rows = new MadeUpValues(3, List.of())
                .of(Type.DATE, DAYS).stream().map(List::of).toList();
        List<Answer> answers = FixEngines.ALL
                .getFirst()
                .run(List.of(new Evaluation(fix, rows)))
                .getFirst();
        for (int i = 0; i < rows.size(); i++) {
            assertThat(answers.get(i))
                    .isEqualTo(new Answer.Value(rows.get(i).getFirst().value()));
        }
    }
}
