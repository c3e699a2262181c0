package fixshelf.render;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Languages that are not run here are written as their public documentation says; what would answer otherwise is
/// refused.
class DocumentedLanguagesTest {
    private static final Scope SCOPE = Scope.ofColumns(
            Scope.Fixes.NONE,
            List.of(
                    new Column("s", Type.TEXT),
                    new Column("t", Type.TEXT),
                    new Column("n", Type.INTEGER),
                    new Column("m", Type.INTEGER),
                    new Column("b", Type.BOOLEAN),
                    new Column("d", Type.DATE),
                    new Column("u", Type.TIMESTAMP),
                    new Column("x", new Type.Decimal(10, 2))));

    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "tsql ; upper(s) ; UPPER(s)",
                "tsql ; trim(s) ; TRIM(BOTH N' ' FROM s COLLATE Latin1_General_100_BIN2)",
                "tsql ; length(s) ; LEN((s + N'.') COLLATE Latin1_General_100_CS_AS_SC) - 1",
                "tsql ; s = 'a' ; CASE WHEN (s + N'.') COLLATE Latin1_General_100_BIN2 = N'a' + N'.' THEN 1 WHEN NOT (s + N'.') COLLATE Latin1_General_100_BIN2 = N'a' + N'.' THEN 0 END",
                "tsql ; s IN ('a', 'b') ; CASE WHEN ((s + N'.') COLLATE Latin1_General_100_BIN2 = N'a' + N'.' OR (s + N'.') COLLATE Latin1_General_100_BIN2 = N'b' + N'.') THEN 1 WHEN NOT ((s + N'.') COLLATE Latin1_General_100_BIN2 = N'a' + N'.' OR (s + N'.') COLLATE Latin1_General_100_BIN2 = N'b' + N'.') THEN 0 END",
                "tsql ; replace(s, 'a', 'b') ; REPLACE(s COLLATE Latin1_General_100_BIN2, N'a', N'b')",
                "tsql ; s || ' ' || t ; s + N' ' + t",
                "tsql ; n + m ; TRY_CAST(CAST(n AS decimal(38, 0)) + m AS bigint)",
                "tsql ; div(n, m) ; CASE WHEN m NOT IN (0, -1) THEN n / m WHEN m = -1 THEN TRY_CAST(CAST(0 AS decimal(38, 0)) - n AS bigint) END",
                "tsql ; add_days(d, n) ; CASE WHEN n BETWEEN DATEDIFF(day, d, CAST('0001-01-01' AS date)) AND DATEDIFF(day, d, CAST('9999-12-31' AS date)) THEN DATEADD(day, n, d) END",
                "tsql ; regexp_replace(s, '([0-9]+)', '<\\1>') ; REGEXP_REPLACE(s, N'([0-9]+)', N'<\\1>')",
                "tsql ; b AND n > 1 ; CASE WHEN b = 1 AND n > 1 THEN 1 WHEN NOT (b = 1 AND n > 1) THEN 0 END",
                "tsql ; coalesce(s, 'é') ; coalesce(s, N'é')",
                "oracle ; upper(s) ; UPPER(s)",
                "oracle ; trim(s) ; LTRIM(RTRIM(s, ' '), ' ')",
                "oracle ; s = 'a' ; CASE WHEN s = 'a' THEN 1 WHEN NOT s = 'a' THEN 0 END",
                "oracle ; replace(s, 'a', 'b') ; REPLACE(s, 'a', 'b')",
                "oracle ; n + m ; CASE WHEN n + m BETWEEN -9223372036854775808 AND 9223372036854775807 THEN n + m END",
                "oracle ; div(n, m) ; CASE WHEN m NOT IN (0, -1) THEN TRUNC(n / m) WHEN m = -1 THEN CASE WHEN 0 - n BETWEEN -9223372036854775808 AND 9223372036854775807 THEN 0 - n END END",
                "oracle ; add_days(d, n) ; CASE WHEN n BETWEEN DATE '0001-01-01' - d AND DATE '9999-12-31' - d THEN d + n END",
                "oracle ; regexp_replace(s, '([0-9]+)', '<\\1>') ; REGEXP_REPLACE(s, '([0-9]+)', '<\\1>', 1, 0, 'c')",
                "oracle ; b OR d < DATE '2026-02-07' ; CASE WHEN b = 1 OR d < DATE '2026-02-07' THEN 1 WHEN NOT (b = 1 OR d < DATE '2026-02-07') THEN 0 END",
                "oracle ; substring(s, 2, 3) ; SUBSTR(s, 2, 3)",
            })
    void isWrittenAsDocumented(String language, String expression, String code) {
        assertThat(rendered(language, expression).get().replaceAll("\\s+", " ")).isEqualTo(code);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "tsql ; s < t ; it fills up the shorter text with spaces before comparing",
                "tsql ; to_decimal(s, 2) ; its casts cut digits instead of refusing a text",
                "tsql ; divide(n, 3, 2) ; its division cuts digits by the types of both sides",
                "tsql ; initcap(s) ; it has no such function",
                "tsql ; b = FALSE ; it has no values for true and false that could be compared",
                "oracle ; s || t ; it has no empty text, and the answer of || for it is another one than for null",
                "oracle ; length(s) ; it has no empty text, and the answer of length for it is another one than for null",
                "oracle ; '' ; it has no empty text, and the answer of a constant for it is another one than for null",
                "oracle ; add_months(d, 1) ; its ADD_MONTHS goes from a last day to a last day",
            })
    void whatWouldAnswerOtherwiseIsRefused(String language, String expression, String why) {
        assertThat(rendered(language, expression).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains(why));
    }

    @Test
    void functionsHaveTheFormOfTheLanguage() throws Exception {
        PageFiles.initShelf(root, "test");
        Files.writeString(
                root.resolve("fixes/tried.fix.md"),
                FixEdits.newPage("tried")
                        .replace(
                                "about: The text to change.}",
                                "about: The text to change.}\n  again: {type: boolean, default: \"FALSE\"}")
                        .replace("RETURN text;", "RETURN CASE WHEN again THEN upper(trim(text)) ELSE trim(text) END;"));
        Shelf shelf = ShelfReader.read(root).get();
        Definition fix = shelf.definition(shelf.fix("tried").orElseThrow()).get();
        assertThat(Languages.find("tsql")
                        .orElseThrow()
                        .definition(fix, "About.")
                        .get())
                .isEqualTo("""
                -- About.
                CREATE OR ALTER FUNCTION dbo.tried(@text nvarchar(max), @again bit = 0)
                RETURNS nvarchar(max)
                AS
                BEGIN
                  RETURN CASE
                    WHEN @again = 1 THEN UPPER(TRIM(BOTH N' ' FROM @text COLLATE Latin1_General_100_BIN2))
                    ELSE TRIM(BOTH N' ' FROM @text COLLATE Latin1_General_100_BIN2)
                  END;
                END;
                GO
                """);
        assertThat(Languages.find("oracle")
                        .orElseThrow()
                        .definition(fix, "About.")
                        .get())
                .isEqualTo("""
                -- About.
                CREATE OR REPLACE FUNCTION tried(text VARCHAR2, again NUMBER DEFAULT 0)
                RETURN VARCHAR2 SQL_MACRO(SCALAR) IS
                BEGIN
                  RETURN q'~CASE
                    WHEN again = 1 THEN UPPER(LTRIM(RTRIM(text, ' '), ' '))
                    ELSE LTRIM(RTRIM(text, ' '), ' ')
                  END~';
                END;
                /
                """);
    }

    private static Outcome<String> rendered(String language, String expression) {
        Expr expr = ExpressionParser.parse("tried", expression, SCOPE).get();
        return Languages.find(language).orElseThrow().expression(expr);
    }
}
