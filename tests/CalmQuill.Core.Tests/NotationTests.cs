using CalmQuill.Core.Formulas;
using CalmQuill.Core.Reckoning;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>What stands where in a formula, read from what is typed.</summary>
public sealed class NotationTests
{
    [Theory]
    // What stands together without a blank stays together.
    [InlineData("(a+b)/2c", "(a + b)/(2c)")]
    [InlineData("1/2x", "1/(2x)")]
    [InlineData("1/2 x", "1/2 x")]
    [InlineData("1/(2x)y", "1/((2x)y)")]
    [InlineData("sin(x)/x", "(sin(x))/x")]
    [InlineData("sin x/2", "sin x/2")]
    [InlineData("1/sin x", "1/(sin x)")]
    [InlineData("a/b/c", "(a/b)/c")]
    [InlineData("-1/2", "−1/2")]
    [InlineData("x^2y", "x^2y")]
    [InlineData("x^y^z", "x^y^z")]
    [InlineData("x_1^2", "x_1^2")]
    [InlineData("x^2_1", "x_1^2")]
    [InlineData("x^-1", "x^(−1)")]
    [InlineData("e^-x^2", "e^(−x^2)")]
    [InlineData("x^(n+1)", "x^(n + 1)")]
    [InlineData("x³", "x^3")]
    [InlineData("v_max", "v_max")]
    [InlineData("sqrt 2x", "√2x")]
    [InlineData("sqrt(2x)", "√(2x)")]
    [InlineData("root(x+1, 3)", "root(x + 1, 3)")]
    [InlineData("2pi sqrt(L/g)", "2π√(L/g)")]
    [InlineData("alphabeta", "αβ")]
    [InlineData("sinx + cosx", "sin x + cos x")]
    [InlineData("sum_(k=1)^n k^2", "∑_(k = 1)^nk^2")]
    [InlineData("a <= b != c", "a ≤ b ≠ c")]
    [InlineData("1.5e-3", "1.5·10^(−3)")]
    [InlineData("2e", "2e")]
    // Behind a number and a blank stands its unit.
    [InlineData("9.81 m/s^2", "9.81 m/s²")]
    [InlineData("9.81m", "9.81m")]
    [InlineData("5mm", "5 mm")]
    [InlineData("3 kg·m²", "3 kg·m²")]
    [InlineData("3 x", "3x")]
    [InlineData("4.9 t^2 + 3 t", "4.9t^2 + 3t")]
    [InlineData("5 s^2", "5s^2")]
    [InlineData("5 mm^2", "5 mm²")]
    [InlineData("2.7 t/m^3", "2.7 t/m³")]
    [InlineData("2700 kg -> t", "2700 kg → t")]
    [InlineData("12 inch -> mm", "12 inch → mm")]
    [InlineData("[1, 2; 3, 4]", "[1, 2; 3, 4]")]
    [InlineData("|x - |y||", "|x − |y||")]
    [InlineData("\"length\" L", "length L")]
    [InlineData("[a, b)", "[a, b)")]
    public void What_is_typed_plainly_stands_where_one_means_it(string typed, string expected)
    {
        Assert.Equal(expected, NotationText.Of(Assert.Single(NotationReader.Read(typed, out var problem))));
        Assert.Null(problem);
    }

    [Theory]
    [InlineData(@"\frac{a+b}{2c}", "(a+b)/2c")]
    [InlineData(@"\frac12 x", "1/2 x")]
    [InlineData(@"\sqrt[3]{x+1}", "root(x+1, 3)")]
    [InlineData(@"2\pi\sqrt{\frac{L}{g}}", "2pi sqrt(L/g)")]
    [InlineData(@"x_{1}^{2}", "x_1^2")]
    [InlineData(@"v_{\text{max}}", "v_max")]
    [InlineData(@"\sum_{k=1}^{n} k^{2}", "sum_(k=1)^n k^2")]
    [InlineData(@"a \le b \ne c", "a <= b != c")]
    [InlineData(@"\left( \frac{x}{y} \right)^{2}", "(x/y)^2")]
    [InlineData(@"\begin{bmatrix} 1 & 2 \\ 3 & 4 \end{bmatrix}", "[1, 2; 3, 4]")]
    [InlineData(@"9.81\,\mathrm{m/s^2}", "9.81 m/s^2")]
    [InlineData(@"\left| x \right| \cdot \alpha", "|x| * alpha")]
    [InlineData(@"\sin^{2} x + \cos^{2} x", "sin^2 x + cos^2 x")]
    [InlineData(@"\int_{0}^{\infty} e^{-x^2} dx", "int_0^infinity e^-x^2 dx")]
    public void The_same_is_read_with_commands(string commands, string plainly)
    {
        var one = NotationText.Of(Assert.Single(NotationReader.Read(commands, out var problem)));
        Assert.Null(problem);
        var other = NotationText.Of(Assert.Single(NotationReader.Read(plainly, out problem)));
        Assert.Null(problem);
        Assert.Equal(other, one);
    }

    [Fact]
    public void A_double_stroke_begins_another_line()
    {
        var lines = NotationReader.Read(@"a = b \\ c = d", out _);
        Assert.Equal(["a = b", "c = d"], lines.Select(NotationText.Of));
    }

    [Theory]
    [InlineData("(a", "not closed", "(a)")]
    [InlineData("a)", "not opened", "a)")]
    [InlineData("1/", "missing", "1/")]
    [InlineData("/2", "missing", "/2")]
    [InlineData("x^", "missing", "x^")]
    [InlineData(@"\foo x", "“\\foo”", @"\foo x")]
    [InlineData(@"\frac{1}", "missing", "1/")]
    [InlineData("\"word", "quotation", "word")]
    [InlineData(@"\begin{cases} 1 & 2", "not closed", "{1, 2")]
    public void What_is_not_whole_yet_is_shown_all_the_same_and_told(string typed, string told, string shown)
    {
        var line = Assert.Single(NotationReader.Read(typed, out var problem));
        Assert.Contains(told, problem!.Sentence.English, StringComparison.Ordinal);
        Assert.Equal(shown, NotationText.Of(line));
    }

    [Fact]
    public void What_is_nested_ten_thousand_deep_is_refused_and_so_is_what_is_too_long()
    {
        foreach (
            var deep in new[]
            {
                new string('(', 900) + "x" + new string(')', 90),
                string.Concat(Enumerable.Repeat("x^", 400)),
                "1" + string.Concat(Enumerable.Repeat("/2", 400)),
            }
        )
            Assert.Contains(
                "deep",
                Assert.Throws<FormulaException>(() => NotationReader.Read(deep, out _)).Sentence.English,
                StringComparison.Ordinal
            );
        var long0 = new string('(', 10_000) + "x" + new string(')', 10_000);
        Assert.Contains(
            "at most",
            Assert.Throws<FormulaException>(() => NotationReader.Read(long0, out _)).Sentence.English,
            StringComparison.Ordinal
        );
    }

    /// <summary>Whatever is typed comes to something that is shown, or to a sentence; and what is shown can be typed again.</summary>
    [Fact]
    public void Nothing_that_is_typed_breaks_it()
    {
        string[] pieces =
        [
            "x",
            "2",
            "1.5",
            "+",
            "-",
            "*",
            "/",
            "^",
            "_",
            "(",
            ")",
            "[",
            "]",
            "{",
            "}",
            "|",
            ",",
            ";",
            "=",
            " ",
            "sin ",
            "sqrt",
            "sum",
            "int_0^1 ",
            "dx",
            "m",
            " mm",
            @"\frac",
            @"\sqrt[",
            @"\left(",
            @"\right)",
            @"\begin{cases}",
            @"\end{cases}",
            @"\\",
            "&",
            @"\text{a}",
            @"\vec",
            "\"",
            "!",
            "%",
            "°",
            "𝑥",
            "\ud835",
            "√",
            "²",
        ];
        Gen.Int[0, pieces.Length - 1]
            .Array[0, 24]
            .Sample(
                chosen =>
                {
                    var typed = string.Concat(chosen.Select(i => pieces[i]));
                    foreach (var line in NotationReader.Read(typed, out _))
                    {
                        Assert.InRange(line.Depth, 0, Notation.MostNested);
                        Assert.NotNull(NotationText.Of(line));
                    }

                    // What it means is known, or told in a sentence; nothing else comes of it.
                    foreach (var task in Enum.GetValues<Algebra.FormulaTask>())
                        Assert.NotNull(new Algebra.Working(NotationReader.Read(typed, out _), task, "x", false, true).Do());
                },
                iter: 3_000
            );
    }
}
