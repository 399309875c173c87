using CalmQuill.Core.Algebra;
using CalmQuill.Core.Formulas;
using CalmQuill.Core.Reckoning;
using CsCheck;
using MathNet.Numerics;
using MathNet.Numerics.LinearAlgebra;

namespace CalmQuill.Core.Tests;

/// <summary>Formulas worked out: values, equations with their steps, derivatives and integrals; checked against MathNet.Numerics and handbooks.</summary>
public sealed class AlgebraTests
{
    [Theory]
    [InlineData("1/2 + 1/3", "= 5/6 ≈ 0.833333")]
    [InlineData("1/3", "≈ 0.333333")]
    [InlineData("5/8 + 0", "= 5/8 = 0.625")]
    [InlineData("0.1 + 0.2", "= 0.3")]
    [InlineData("sqrt 12", "= 2√3 ≈ 3.4641")]
    [InlineData("sqrt(2) sqrt(8)", "= 4")]
    [InlineData("1/sqrt 2", "= 1/2 √2 ≈ 0.707107")]
    [InlineData("cbrt(-27)", "= −3")]
    [InlineData("2^100", "= 1267650600228229401496703205376")]
    [InlineData("2^-2", "= 1/4 = 0.25")]
    [InlineData("9!", "= 362880")]
    [InlineData("sin(30°)", "= 1/2 = 0.5")]
    [InlineData("cos(pi/6)", "= 1/2 √3 ≈ 0.866025")]
    [InlineData("tan(pi/4) + ln(e^3)", "= 4")]
    [InlineData("log(1000) + log_2 8", "= 6")]
    [InlineData("|3 - 5|", "= 2")]
    [InlineData("pi/4 + 1", "= (4 + π)/4 ≈ 1.7854")]
    [InlineData("gcd(12, 18) + max(2, 3)", "≈ 9")]
    [InlineData("1e-3 * 5", "= 1/200 = 0.005")]
    // Hundredths: of something, and more than something.
    [InlineData("19 % of 120", "= 22.8")]
    [InlineData("120 + 19 %", "= 142.8")]
    [InlineData("120 - 19 %", "= 97.2")]
    // Units.
    [InlineData("12 inch + 3 mm -> cm", "= 30.78 cm")]
    [InlineData("5 kg * 9.81 m/s^2", "= 49.05 N")]
    [InlineData("3 kWh / 2 h", "= 1500 W")]
    [InlineData("90 km/h -> m/s", "= 25 m/s")]
    [InlineData("90 km/h to m/s", "= 25 m/s")]
    [InlineData("2 + 3 =", "5")]
    [InlineData("50 - 8 =", "42")]
    [InlineData("50 - 8", "= 42")]
    [InlineData("2700 kg -> t", "= 2.7 t")]
    [InlineData("230 V * 2 A -> kW", "= 0.46 kW")]
    [InlineData("sqrt(9 m^2) + 2 mm", "= 3002 mm")]
    // Sums and integrals. The zeta function at 2 to a thousand terms: 1.643935 (NIST Handbook, 25.2: π²/6 − 1/1000).
    [InlineData("sum_(k=1)^100 k", "= 5050")]
    [InlineData("sum_(k=1)^1000 1/k^2 + 0.0", "≈ 1.64393")]
    [InlineData(@"\prod_{k=1}^{5} k", "= 120")]
    [InlineData("int_0^1 x^2 dx", "= 1/3 ≈ 0.333333")]
    [InlineData("int_0^pi sin x dx", "= 2")]
    [InlineData("int_0^2 e^(-x^2) dx", "≈ 0.882081")] // √π/2 · erf 2 (NIST Handbook, 7.2)
    public void What_a_line_comes_to_stands_behind_it(string typed, string behind) =>
        Assert.Equal(behind, Told(Work(FormulaTask.Value, typed).Worked.Behind[0]));

    [Theory]
    [InlineData("1/0", "divided by 0")]
    [InlineData("0^-1", "divided by 0")]
    [InlineData("0^0", "nothing")]
    [InlineData("sqrt(-4)", "negative")]
    [InlineData("5 m + 3 s", "m and s cannot be added")]
    [InlineData("5 m -> s", "cannot be told in s")]
    [InlineData("sin(5 m)", "plain number")]
    [InlineData("2^(3 m)", "plain number")]
    [InlineData("sqrt(2 m)", "no such root")]
    [InlineData("x + 1", "what x is")]
    [InlineData("x^x^x", "what x is")]
    [InlineData("10^5000", "too large")]
    [InlineData("9^9^9^9", "too large")]
    [InlineData("1000!", "")]
    [InlineData("int_-1^1 1/x dx", "")]
    [InlineData("int_0^1 1/x^2 dx", "between its bounds")]
    [InlineData("sum_(k=1)^100000000 k", "too long")]
    [InlineData("sum_(k=1)^1000 sum_(j=1)^1000 k j", "too long")]
    [InlineData("2 +", "missing")]
    [InlineData("5 < 6", "one letter is equal")]
    [InlineData("oo + 1", "infinity")]
    [InlineData(@"\vec{x} \cdot \begin{pmatrix} 1 \\ 2 \end{pmatrix}", "not worked out")]
    public void What_comes_to_nothing_is_told_in_a_sentence(string typed, string told)
    {
        var worked = Work(FormulaTask.Value, typed).Worked;
        Assert.DoesNotContain(worked.Behind, one => Told(one.Value).Contains('∞', StringComparison.Ordinal));
        if (told.Length > 0)
            Assert.Contains(told, worked.Problem!.English, StringComparison.Ordinal);
    }

    [Fact]
    public void Later_lines_know_what_earlier_ones_said()
    {
        // T = 2π√(L/g), the period of a small swing: 2.00907 s for 1.003 m.
        var (lines, worked) = Work(FormulaTask.Value, "L = 1.003 m", "g = 9.81 m/s^2", "T = 2 pi sqrt(L/g)");
        Assert.Equal([2], worked.Behind.Keys);
        Assert.Equal("= 2π√((1.003 m)/(9.81 m/s²)) ≈ 2.00907 s", Told(worked.Behind[2]));
        Assert.Equal(3, lines.Count);
        Assert.Equal(2.00907, Math.Tau * Math.Sqrt(1.003 / 9.81), 1e-5);
    }

    [Theory]
    [InlineData("1/3 = 2/6", true)]
    [InlineData("3^2 + 4^2 = 5^2", true)]
    [InlineData("1 inch = 25.4 mm", true)]
    [InlineData("sqrt 2 = 1.41421", false)]
    [InlineData("1 m = 1 s", false)]
    public void Two_sides_are_compared(string typed, bool isSame) =>
        Assert.Equal(
            isSame ? "Both sides are equal." : "The two sides are not equal.",
            Work(FormulaTask.Value, typed).Worked.Told!.English
        );

    [Fact]
    public void A_linear_equation_is_solved_step_by_step() =>
        Assert.Equal(["3x − 4 = x + 8   | −x", "2x − 4 = 8   | +4", "2x = 12   | :2", "x = 6 !"], Solved("3x - 4 = x + 8"));

    [Fact]
    public void A_quadratic_equation_is_solved_by_the_formula_with_its_numbers() =>
        Assert.Equal(
            [
                "x^2 − 5x + 6 = 0",
                "x_1,2 = (−(−5) ± √((−5)^2 − 4·1·6))/(2·1)",
                "x_1,2 = (5 ± √1)/2",
                "x_1,2 = (5 ± 1)/2",
                "x_1 = 2 !",
                "x_2 = 3 !",
            ],
            Solved("x^2 - 5x + 6 = 0")
        );

    [Fact]
    public void A_formula_is_rearranged_for_a_letter_in_it()
    {
        Assert.Equal(
            ["T = 2π√(L/g)", "2π√(L/g) = T   | :2π", "√(L/g) = T/(2π)   | ()^2", "L/g = T^2/(4π^2)   | ·g", "L = (T^2g)/(4π^2) !"],
            Solved("T = 2 pi sqrt(L/g)", "L")
        );
        Assert.Equal("g = (4π^2L)/T^2 !", Solved("T = 2 pi sqrt(L/g)", "g")[^1]);
        Assert.Equal("R = (R_1R_2)/(R_1 + R_2) !", Solved("1/R = 1/R_1 + 1/R_2", "R")[^1]);
        Assert.Equal("m = E/c^2 !", Solved("E = m c^2", "m")[^1]);
        Assert.Equal(["c_1 = √(E/m) !", "c_2 = −√(E/m) !"], Solved("E = m c^2", "c")[^2..]);
    }

    [Fact]
    public void Several_equations_are_solved_by_taking_one_from_another()
    {
        Assert.Equal(
            [
                "(1), x + y = 5; (2), x − y = 1   | (2) − (1)",
                "(1), x + y = 5; (2), −2y = −4   | (1) + 1/2·(2)",
                "(1), x = 3; (2), −2y = −4",
                "x = 3 !",
                "y = 2 !",
            ],
            Solved(["x + y = 5", "x - y = 1"])
        );
        Assert.Contains("Nothing solves", Work(FormulaTask.Solve, "x + y = 1", "x + y = 2").Worked.Told!.English, StringComparison.Ordinal);
        Assert.Equal("x = −y + 1 !", Solved(["x + y = 1", "2x + 2y = 2"])[^1]);
        Assert.Contains("only numbers", Work(FormulaTask.Solve, "x y = 1", "x + y = 2").Worked.Problem!.English, StringComparison.Ordinal);
        Assert.Contains(
            "At most 4",
            Work(FormulaTask.Solve, "a + b + c + d + f = 1", "a = 2").Worked.Problem!.English,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("x^2 + 1 = 0", "L = ∅")]
    [InlineData("x + 1 = x + 2", "L = ∅")]
    [InlineData("2(x + 1) = 2x + 2", "x ∈ ℝ")]
    [InlineData("sqrt(x + 1) = -2", "L = ∅")]
    [InlineData("|x| = -1", "L = ∅")]
    [InlineData("(x-2)^2 = 9", "x_1 = −1", "x_2 = 5")]
    [InlineData("x^2 = 5x", "x_1 = 0", "x_2 = 5")]
    [InlineData("x^2 - 2x - 1 = 0", "x_1 = 1 − √2 ≈ −0.414214", "x_2 = 1 + √2 ≈ 2.41421")]
    [InlineData("x^3 - 6x^2 + 11x - 6 = 0", "x_1 = 1", "x_2 = 2", "x_3 = 3")]
    [InlineData("x^3 = 2x", "x_1 = −√2 ≈ −1.41421", "x_2 = 0", "x_3 = √2 ≈ 1.41421")]
    [InlineData("(x-1)^3 (x+2) = 0", "x_1 = −2", "x_2 = 1")]
    [InlineData("x^5 - x - 1 = 0", "x ≈ 1.1673")]
    [InlineData("1/x + 1/(x+1) = 1", "x_1 = (1 − √5)/2 ≈ −0.618034", "x_2 = (1 + √5)/2 ≈ 1.61803")]
    // What is multiplied away must not be 0.
    [InlineData("x/(x-1) = 1/(x-1)", "L = ∅")]
    // What is squared may have more solutions than it had.
    [InlineData("sqrt(x) + 2 = x", "x = 4")]
    [InlineData("sqrt(2x+3) = x", "x = 3")]
    [InlineData("2^x = 8", "x = 3")]
    [InlineData("e^(2x) = 5", "x = 1/2 ln 5 ≈ 0.804719")]
    [InlineData("ln(x) = 2", "x = e^2 ≈ 7.38906")]
    [InlineData("|2x-1| = 5", "x_1 = −2", "x_2 = 3")]
    [InlineData("cos x = x", "x ≈ 0.739085")]
    [InlineData("0.5x + 1.25 = 3", "x = 3.5")]
    [InlineData("0.9 = 1/2 * 9.81 x^2", "x_1 ≈ −0.428353", "x_2 ≈ 0.428353")]
    [InlineData("x^40 = 1", "x_1 = −1", "x_2 = 1")]
    public void Equations_have_these_solutions(string typed, params string[] expected) =>
        Assert.Equal(expected, Work(FormulaTask.Solve, typed).Worked.Below.Where(line => line.IsResult).Select(line => Told(line.Line)));

    [Theory]
    [InlineData("x + 1", "no equation")]
    [InlineData("1 = 2", "no letter")]
    [InlineData("sin(x) + y x = 1", "other letters")]
    public void What_cannot_be_solved_is_told(string typed, string told) =>
        Assert.Contains(told, Work(FormulaTask.Solve, typed).Worked.Problem!.English, StringComparison.Ordinal);

    [Theory]
    [InlineData("(x+1)^2 - (x-1)^2", "4x")]
    [InlineData("(x^2-1)/(x-1)", "x + 1")]
    [InlineData("(x^3-8)/(x^2-4)", "(x^2 + 2x + 4)/(x + 2)")]
    [InlineData("2a + 3b - a + b", "a + 4b")]
    [InlineData("1/x + 1/y", "(x + y)/(xy)")]
    [InlineData("x^2 x^3 / x", "x^4")]
    [InlineData("(a+b)(a-b)", "a^2 − b^2")]
    [InlineData("sqrt(50) + sqrt(8)", "7√2")]
    public void What_can_be_said_more_simply_is(string typed, string simply) =>
        Assert.Equal($"= {simply}", Told(Work(FormulaTask.Simplify, typed).Worked.Behind[0]));

    [Fact]
    public void What_would_become_too_long_is_refused() =>
        Assert.Contains("too long", Work(FormulaTask.Simplify, "(a+b+c+d+f+g+h+k)^24").Worked.Problem!.English, StringComparison.Ordinal);

    [Fact]
    public void A_derivative_is_told_with_the_rule_for_it() =>
        Assert.Equal(
            ["x^2 sin x", "d/(dx) (x^2 sin x) = (x^2)′·sin x + x^2·(sin x)′", "= x^2 cos x + 2x sin x !"],
            Lines(Work(FormulaTask.Derive, "x^2 sin x"))
        );

    /// <summary>Against MathNet.Numerics, which differentiates by differences.</summary>
    [Theory]
    [InlineData("3x^4 - 2x + 7")]
    [InlineData("x^2 sin(3x)")]
    [InlineData("e^(x^2) / x")]
    [InlineData("ln(x)/x^3")]
    [InlineData("tan(x) sqrt(x)")]
    [InlineData("x^x")]
    [InlineData("2^x cos(x)^2")]
    [InlineData("arctan(x^2) + arcsin(x/3)")]
    [InlineData("sinh(x) cosh(2x) - tanh x")]
    [InlineData("(2x+1)^9")]
    [InlineData("log(x, 3) + lg x + lb x")]
    [InlineData("|x - 5|")]
    public void Derivatives_are_those_of_differences(string typed)
    {
        var term = TermOf(typed);
        var (of, slope) = (Evaluation.Function(term, "x"), Evaluation.Function(term.By("x"), "x"));
        foreach (var x in new[] { 0.3, 0.7, 1.1, 1.4, 2.2 })
            Assert.Equal(Differentiate.FirstDerivative(of, x), slope(x), 1e-4 * Math.Max(1, Math.Abs(slope(x))));
    }

    /// <summary>What grows by the integral, by MathNet.Numerics, of what was integrated.</summary>
    [Theory]
    [InlineData("3x^2 + 2x + 1")]
    [InlineData("x e^x")]
    [InlineData("sin(2x+1)")]
    [InlineData("1/(x^2+4)")]
    [InlineData("x^2 cos(3x)")]
    [InlineData("x ln x")]
    [InlineData("ln x")]
    [InlineData("(2x+1)^9")]
    [InlineData("1/(3x+2)")]
    [InlineData("sqrt(x) + 1/x")]
    [InlineData("1/sqrt(9 - x^2)")]
    [InlineData("5^x + 2^(3x)")]
    [InlineData("tan x")]
    [InlineData("x^3 e^(-2x)")]
    [InlineData("(x+1)(x-2)")]
    [InlineData("1/cos(x)^2")]
    public void An_antiderivative_grows_by_the_integral(string typed)
    {
        var term = TermOf(typed);
        var (of, made) = (Evaluation.Function(term, "x"), Evaluation.Function(term.Over("x"), "x"));
        var expected = Integrate.GaussKronrod(of, 0.4, 1.3);
        Assert.Equal(expected, made(1.3) - made(0.4), 1e-8 * Math.Max(1, Math.Abs(expected)));
    }

    [Theory]
    [InlineData("e^(x^2)")]
    [InlineData("sin(x)/x")]
    public void What_no_rule_integrates_is_told(string typed) =>
        Assert.Contains("not known", Work(FormulaTask.Integrate, typed).Worked.Problem!.English, StringComparison.Ordinal);

    /// <summary>Against MathNet.Numerics, of functions with and without corners.</summary>
    [Fact]
    public void Integrals_by_numbers_are_those_of_another_library()
    {
        foreach (
            var (of, from, to) in new (Func<double, double>, double, double)[]
            {
                (Math.Exp, 0, 3),
                (x => Math.Sqrt(Math.Abs(x)), -1, 2),
                (x => Math.Sin(20 * x) / (1 + x), 0, 5),
            }
        )
            Assert.Equal(Integrate.GaussKronrod(of, from, to, 1e-12, 30), Quadrature.Over(of, from, to), 1e-9);
    }

    /// <summary>Against MathNet.Numerics, which finds them as eigenvalues.</summary>
    [Fact]
    public void Roots_are_those_of_another_library() =>
        Gen.Int[-9, 9]
            .Array[3, 9]
            .Where(shares => shares[^1] != 0 && shares[0] != 0)
            .Sample(
                shares =>
                {
                    double[] own = [.. shares.Select(share => (double)share)];
                    var expected = FindRoots.Polynomial(own);
                    var found = Roots.All(own);
                    Assert.Equal(expected.Length, found.Count);
                    // Roots that lie together are known as badly as they lie together.
                    foreach (var root in expected)
                        Assert.InRange(found.Min(one => (one - root).Magnitude), 0, 1e-3 * Math.Max(1, root.Magnitude));
                },
                iter: 300
            );

    [Fact]
    public void Fractions_among_the_roots_are_found_exactly() =>
        Gen.Select(Gen.Int[-12, 12], Gen.Int[1, 9])
            .Array[1, 5]
            .Sample(
                roots =>
                {
                    var whole = roots.Aggregate(
                        new ExactPolynomial([Numbers.Exact.One]),
                        (all, root) =>
                            Times(all, new ExactPolynomial([-new Numbers.Exact(root.Item1, 1), new Numbers.Exact(root.Item2, 1)]))
                    );
                    var (found, left) = whole.FractionRoots();
                    Assert.Equal(roots.Select(root => new Numbers.Exact(root.Item1, root.Item2)).Order(), found);
                    Assert.Equal(0, left.Degree);
                },
                iter: 200
            );

    /// <summary>Against MathNet.Numerics.</summary>
    [Fact]
    public void Systems_have_the_solution_of_another_library() =>
        Gen.Int[-5, 5]
            .Array[12]
            .Sample(
                numbers =>
                {
                    var matrix = Matrix<double>.Build.Dense(3, 3, (row, column) => numbers[row * 3 + column]);
                    if (Math.Abs(matrix.Determinant()) < 0.5)
                        return;
                    string[] typed =
                    [
                        .. Enumerable
                            .Range(0, 3)
                            .Select(row =>
                                $"{numbers[row * 3]}x + ({numbers[row * 3 + 1]})y + ({numbers[row * 3 + 2]})z = {numbers[9 + row]}"
                            ),
                    ];
                    var expected = matrix.Solve(Vector<double>.Build.Dense(3, i => numbers[9 + i]));
                    var results = Work(FormulaTask.Solve, typed)
                        .Worked.Below.Where(line => line.IsResult)
                        .Select(line => Told(line.Line))
                        .ToList();
                    Assert.Equal(3, results.Count);
                    for (var i = 0; i < 3; i++)
                        Assert.Equal(expected[i], Formula.Read(results[i].Split('=')[1].Replace('−', '-'), []).At(), 1e-9);
                },
                iter: 200
            );

    /// <summary>A term keeps its value whatever form it is brought into: against the formulas of plots, which are read and reckoned by other code.</summary>
    [Fact]
    public void Forms_of_a_term_have_the_same_value()
    {
        Typed.Sample(
            typed =>
            {
                double x = 1.37,
                    y = 0.61,
                    expected = Formula.Read(typed, ["x", "y"]).At(x, y);
                if (!double.IsFinite(expected) || Math.Abs(expected) > 1e9)
                    return;
                var term = TermOf(typed);
                var (over, under) = term.AsFraction();
                foreach (var form in new[] { term, term.Expand(), over / under })
                {
                    var value = Evaluation.Function(form.Replace("y", Term.Of(new Numbers.Exact(61, 100))), "x")(x);
                    Assert.Equal(expected, value, 1e-7 * Math.Max(1, Math.Abs(expected)));
                }
            },
            iter: 2_000
        );
    }

    /// <summary>What is written down is read as what it was.</summary>
    [Theory]
    [InlineData("(a + b)^2/(2c) - sqrt(x)/3 + sin(2x)")]
    [InlineData("-x^2 + 3 x y^-1 - 1/2")]
    [InlineData("e^(-x) ln(x+1) |x|")]
    [InlineData("2 sqrt(3) x - root(x, 3)")]
    public void Terms_are_written_as_they_can_be_typed_again(string typed)
    {
        var term = TermOf(typed);
        Assert.Equal(term, TermOf(NotationText.Of(new Wording(false).Of(term))));
    }

    /// <summary>Whatever a term is, what is written of it is read as something of the same value.</summary>
    [Fact]
    public void What_is_written_of_a_term_has_its_value() =>
        Typed.Sample(
            typed =>
            {
                var term = TermOf(typed);
                foreach (var form in new[] { term, term.Expand(), term.By("x") })
                {
                    var expected = At(form);
                    if (!double.IsFinite(expected) || Math.Abs(expected) > 1e9)
                        continue;
                    var written = NotationText.Of(new Wording(false).Of(form));
                    Assert.True(Math.Abs(At(TermOf(written)) - expected) <= 1e-6 * Math.Max(1, Math.Abs(expected)), $"{typed}: {written}");
                }
            },
            iter: 1_000
        );

    /// <summary>Against the framework's own functions, all around the circle and back.</summary>
    [Theory]
    [InlineData("sin")]
    [InlineData("cos")]
    [InlineData("tan")]
    public void Known_values_are_those_of_the_functions(string function)
    {
        var known = 0;
        for (var twelfths = -60; twelfths <= 60; twelfths++)
        {
            var term = Terms.Call(function, new Term.Symbol("π") * Term.Of(new Numbers.Exact(twelfths, 12)));
            if (term is Term.Called)
                continue;
            known++;
            var x = twelfths * Math.PI / 12;
            var expected =
                function == "sin" ? Math.Sin(x)
                : function == "cos" ? Math.Cos(x)
                : Math.Tan(x);
            Assert.Equal(expected, At(term), 1e-12);
        }

        Assert.InRange(known, 60, 121);
    }

    [Fact]
    public void Trees_are_worked_through_however_deep_they_are()
    {
        var depth = Fold.Up<int, int>(300_000, node => node == 0 ? [] : [node - 1], (_, parts) => parts.Count == 0 ? 0 : parts[0] + 1);
        Assert.Equal(300_000, depth);
    }

    /// <summary>What is reckoned in units is what is reckoned in the coherent ones: lengths of a pendulum in any unit give the same period.</summary>
    [Theory]
    [InlineData("1.003 m")]
    [InlineData("100.3 cm")]
    [InlineData("1003 mm")]
    [InlineData("0.001003 km")]
    public void A_quantity_is_the_same_in_every_unit(string length)
    {
        var (_, worked) = Work(FormulaTask.Value, $"L = {length}", "g = 9.81 m/s^2", "T = 2 pi sqrt(L/g)");
        Assert.EndsWith("≈ 2.00907 s", Told(worked.Behind[2]), StringComparison.Ordinal);
    }

    /// <summary>Expressions in x and y.</summary>
    private static Gen<string> Typed
    {
        get
        {
            var leaf = Gen.OneOf(
                Gen.Const("x"),
                Gen.Const("y"),
                Gen.Int[1, 9].Select(number => number.ToString(System.Globalization.CultureInfo.InvariantCulture))
            );
            return Of(Of(leaf));

            static Gen<string> Of(Gen<string> inner) =>
                Gen.Select(inner, inner, Gen.Int[0, 6])
                    .Select(
                        (one, other, kind) =>
                            kind switch
                            {
                                0 => $"({one}) + ({other})",
                                1 => $"({one}) - ({other})",
                                2 => $"({one}) * ({other})",
                                3 => $"(({one}) / (1 + ({other})^2))",
                                4 => $"({one})^2 - ({other})",
                                5 => $"sqrt(1 + ({one})^2)",
                                _ => $"sin({one}) * ({other})",
                            }
                    );
        }
    }

    private static double At(Term term) => Evaluation.Function(term.Replace("y", Term.Of(new Numbers.Exact(61, 100))), "x")(1.37);

    private static ExactPolynomial Times(ExactPolynomial one, ExactPolynomial other)
    {
        var shares = new Numbers.Exact[one.Degree + other.Degree + 1];
        for (var i = 0; i <= one.Degree; i++)
        {
            for (var k = 0; k <= other.Degree; k++)
                shares[i + k] += one.Shares[i] * other.Shares[k];
        }

        return new(shares);
    }

    private static Term TermOf(string typed) => Meaning.Of(Assert.Single(NotationReader.Read(typed, out _)), false).Sides[0];

    private static string Told(Notation notation) => NotationText.Of(notation);

    private static (IReadOnlyList<Notation> Lines, Worked Worked) Work(FormulaTask task, params string[] typed) => Work(task, "", typed);

    private static (IReadOnlyList<Notation> Lines, Worked Worked) Work(FormulaTask task, string letter, string[] typed)
    {
        IReadOnlyList<Notation> lines = [.. typed.SelectMany(line => NotationReader.Read(line, out _))];
        return (lines, new Working(lines, task, letter, false, true).Do());
    }

    private static List<string> Solved(string typed, string letter = "") => Lines(Work(FormulaTask.Solve, letter, [typed]));

    /// <summary>The steps alone.</summary>
    private static List<string> Solved(string[] typed) => [.. Lines(Work(FormulaTask.Solve, "", typed)).Skip(typed.Length)];

    /// <summary>All that is shown, line by line; what came out ends with an exclamation mark.</summary>
    private static List<string> Lines((IReadOnlyList<Notation> Lines, Worked Worked) one) =>
        [
            .. one.Lines.Select((line, i) => Told(line) + (one.Worked.Notes.TryGetValue(i, out var note) ? $"   | {Told(note)}" : "")),
            .. one.Worked.Below.Select(line =>
                Told(line.Line) + (line.Note is null ? "" : $"   | {Told(line.Note)}") + (line.IsResult ? " !" : "")
            ),
        ];
}
