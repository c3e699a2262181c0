package fixshelf.export;

import fixshelf.render.Language;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/// What writes a receipt where an exported folder is checked: a query, a plug-in of pytest, a script of R.
final class ReceiptScripts {
    private ReceiptScripts() {}

    /// How a language of SQL says what a receipt holds.
    ///
    /// @param joins whether texts are joined by `||`; else by `concat`
    /// @param text the type that a number is cast to
    /// @param version what the engine calls itself
    /// @param now the time, as a text
    /// @param from what follows a query without a table
    private record Dialect(String joins, String text, String version, String now, String from) {}

    private static final Dialect USUAL =
            new Dialect("||", "VARCHAR(40)", "version()", "CAST(CURRENT_TIMESTAMP AS VARCHAR(40))", "");

    private static final Map<String, Dialect> DIALECTS = Map.of(
            "duckdb", new Dialect("||", "VARCHAR", "'DuckDB ' || version()", "CAST(now() AS VARCHAR)", ""),
            "postgresql", USUAL,
            "mariadb",
                    new Dialect("concat", "CHAR(40)", "concat('MariaDB ', version())", "CAST(now() AS CHAR(40))", ""),
            "sqlite", new Dialect("||", "TEXT", "'SQLite ' || sqlite_version()", "datetime('now')", ""),
            "spark", new Dialect("||", "STRING", "'Spark ' || version()", "CAST(current_timestamp() AS STRING)", ""),
            "tsql",
                    new Dialect(
                            "+",
                            "varchar(40)",
                            "CAST(SERVERPROPERTY('ProductVersion') AS varchar(200))",
                            "CONVERT(varchar(40), SYSDATETIME(), 126)",
                            ""),
            "oracle",
                    new Dialect(
                            "||",
                            "VARCHAR2(40)",
                            "(SELECT max(version) FROM product_component_version)",
                            "TO_CHAR(SYSTIMESTAMP)",
                            " FROM dual"));

    private static final String WORDS =
            "-- Gives one text, the receipt: save it, and read it with fixshelf parity --receipt FILE.\n";

    /// A query that gives one row with one text; where a language has no functions, statements before it, as all checks
    /// in one would be too long.
    ///
    /// @param checks a query for each fix, whose rows are the cases that fail
    /// @param cases how many cases each of these queries runs
    static String sql(Language language, String digest, Map<String, String> checks, Map<String, Integer> cases) {
        Dialect dialect = DIALECTS.getOrDefault(language.id(), USUAL);
        String counted = cases.entrySet().stream()
                .map(e -> '"' + e.getKey() + "\":" + e.getValue())
                .collect(Collectors.joining(","));
        List<String> parts = new ArrayList<>();
        parts.add("'" + Receipt.MARK + ":1,\"language\":\"" + language.id() + "\",\"digest\":\"" + digest
                + "\",\"cases\":{" + counted + "},\"engine\":\"'");
        parts.add("replace(" + dialect.version() + ", '\"', '')");
        parts.add("'\",\"at\":\"'");
        parts.add(dialect.now());
        parts.add("'\",\"failing\":{'");
        StringBuilder before = new StringBuilder();
        if (language.definesFunctions()) {
            String comma = "";
            for (Map.Entry<String, String> check : checks.entrySet()) {
                parts.add("'" + comma + "\"" + check.getKey() + "\":'");
                parts.add("CAST((SELECT count(*) FROM (" + check.getValue() + ") failing) AS " + dialect.text() + ")");
                comma = ",";
            }
        } else {
            before.append("CREATE TEMP TABLE IF NOT EXISTS fix_shelf_checks (fix TEXT, failing INTEGER);\n")
                    .append("DELETE FROM fix_shelf_checks;\n");
            checks.forEach((fix, check) -> before.append("INSERT INTO fix_shelf_checks SELECT '")
                    .append(fix)
                    .append("', count(*) FROM (")
                    .append(check)
                    .append(");\n"));
            parts.add("(SELECT group_concat('\"' || fix || '\":' || failing, ',') FROM fix_shelf_checks)");
        }
        parts.add("'}}'");
        String joined = dialect.joins().equals("concat")
                ? "concat(\n  " + String.join(",\n  ", parts) + ")"
                : String.join("\n  " + dialect.joins() + " ", parts);
        return WORDS + before + "SELECT " + joined + " AS receipt" + dialect.from() + ";\n";
    }

    static final String CONFTEST = """
        import datetime
        import hashlib
        import json
        import pathlib
        import platform

        import pandas

        # Writes receipt-here.json beside the tests: read it with fixshelf parity --receipt FILE.
        cases = {}
        failing = {}


        def pytest_runtest_logreport(report):
            if report.when == "call" or report.failed:
                fix = report.nodeid.split("::")[1].split("[")[0][len("test_"):]
                cases[fix] = cases.get(fix, 0) + (report.when == "call")
                failing[fix] = failing.get(fix, 0) + bool(report.failed)


        def pytest_sessionfinish(session):
            here = pathlib.Path(__file__).parent
            functions = (here / "fixes.py").read_bytes().split(b"\\n", 1)[1]
            receipt = {
                "fix_shelf_receipt": 1,
                "language": "pandas",
                "digest": hashlib.sha256(functions).hexdigest()[:16],
                "cases": cases,
                "engine": f"Python {platform.python_version()} with pandas {pandas.__version__}",
                "at": datetime.datetime.now().isoformat(timespec="seconds"),
                "failing": failing,
            }
            (here / "receipt-here.json").write_text(json.dumps(receipt, separators=(",", ":")) + "\\n")
        """;

    static final String R = """
        # Writes receipt-here.json beside the tests: read it with fixshelf parity --receipt FILE.
        results <- as.data.frame(testthat::test_file("test-fixes.R", reporter = "silent", stop_on_failure = FALSE))
        fix <- sub("^the cases of (.*) hold$", "\\\\1", results$test)
        counts <- function(n) paste0("{", paste0("\\"", fix, "\\":", n, collapse = ","), "}")
        engine <- paste0(R.version.string, " with dplyr ", packageVersion("dplyr"), ", stringr ", packageVersion("stringr"))
        writeLines(paste0(
          "{\\"fix_shelf_receipt\\":1,\\"language\\":\\"r\\",\\"digest\\":\\"", unname(tools::md5sum("fixes.R")),
          "\\",\\"cases\\":", counts(results$nb), ",\\"engine\\":\\"", engine, "\\",\\"at\\":\\"",
          format(Sys.time(), "%Y-%m-%dT%H:%M:%S"), "\\",\\"failing\\":", counts(results$failed + results$error), "}"
        ), "receipt-here.json")
        """;
}
