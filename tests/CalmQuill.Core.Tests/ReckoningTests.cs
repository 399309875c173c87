using CalmQuill.Core.Reckoning;
using CsCheck;
using MathNet.Numerics;

namespace CalmQuill.Core.Tests;

/// <summary>Formulas as they are typed, worked out and checked against MathNet.Numerics and values from handbooks.</summary>
public sealed class ReckoningTests
{
    [Theory]
    [InlineData("1+2*3", 7)]
    [InlineData("2 - 3 - 4", -5)]
    [InlineData("2^3^2", 512)]
    [InlineData("-3^2", -9)]
    [InlineData("2^-1", 0.5)]
    [InlineData("(1+2)(3+4)", 21)]
    [InlineData("2(3)", 6)]
    [InlineData("1/2·4", 2)]
    [InlineData("12 ÷ 4 × 3", 9)]
    [InlineData("√16 + √9", 7)]
    [InlineData("2√9", 6)]
    [InlineData("|−3| + |2|", 5)]
    [InlineData("2|-3|", 6)]
    [InlineData("5!", 120)]
    [InlineData("2^3!", 64)]
    [InlineData("15 %", 0.15)]
    [InlineData("3²+4²", 25)]
    [InlineData("1.5e3", 1500)]
    [InlineData("log 1000", 3)]
    [InlineData("log(8, 2)", 3)]
    [InlineData("ln(e^2)", 2)]
    [InlineData("root(27, 3)", 3)]
    [InlineData("(-8)^(1/3)", -2)]
    [InlineData("max(2; 3) + min(2; 3)", 5)]
    [InlineData("mod(-1, 3)", 2)]
    [InlineData("[2 + {3}]", 5)]
    [InlineData("sin^2 1 + cos²1", 1)]
    [InlineData("sin 90°", 1)]
    [InlineData("2 sin(pi/6)", 1)]
    [InlineData("cbrt -27", -3)]
    public void It_means_what_is_written(string text, double value) => Assert.Equal(value, Formula.Read(text, []).At(), 12);

    [Theory]
    [InlineData("2x y", 2.0 * 3 * 5)]
    [InlineData("2xy", 2.0 * 3 * 5)]
    [InlineData("1/2x", 1.0 / 6)]
    [InlineData("x^y", 243)]
    [InlineData("x²y", 45)]
    [InlineData("2pix", 6 * Math.PI)]
    public void What_stands_side_by_side_is_multiplied_first(string text, double value) =>
        Assert.Equal(value, Formula.Read(text, ["x", "y"]).At(3, 5), 12);

    [Fact]
    public void Sines_take_what_stands_beside_them_and_no_other_sine()
    {
        double Of(string text) => Formula.Read(text, ["x"]).At(0.7);
        Assert.Equal(Math.Sin(1.4) * Math.Cos(0.7), Of("sin 2x cos x"), 12);
        Assert.Equal(Math.Sin(0.7) + 1, Of("sin x + 1"), 12);
        Assert.Equal(Math.Sin(0.49), Of("sin x^2"), 12);
        Assert.Equal(2 * Math.Pow(Math.Sin(0.7), 3), Of("2sin^3 x"), 12);
        Assert.Equal(Math.Sin(0.7) / 2, Of("sin x / 2"), 12);
    }

    [Fact]
    public void The_pendulums_period_by_its_length_is_what_handbooks_say()
    {
        var period = Formula.Read("2 pi sqrt(l/g)", ["l", "g"]);
        // At standard gravity, a pendulum of 0.994 m beats seconds: its period is two.
        Assert.Equal(2.0, period.At(0.994, 9.80665), 3);
        Assert.Equal(2.006, period.At(1, 9.80665), 3);
        Assert.Equal([0, 1], period.Variables.Order());
    }

    [Fact]
    public void In_degrees_angles_go_in_and_come_out_so()
    {
        double Of(string text) => Formula.Read(text, [], degrees: true).At();
        Assert.Equal(0.5, Of("sin 30"), 12);
        Assert.Equal(0.5, Of("sin 30°"), 12);
        Assert.Equal(45, Of("atan 1"), 12);
        Assert.Equal(0.25, Of("sin^2 30"), 12);
    }

    [Fact]
    public void Functions_are_those_of_MathNet()
    {
        (string Name, Func<double, double> Theirs)[] functions =
        [
            ("sin", Trig.Sin),
            ("cos", Trig.Cos),
            ("tan", Trig.Tan),
            ("cot", Trig.Cot),
            ("sec", Trig.Sec),
            ("csc", Trig.Csc),
            ("sinh", Trig.Sinh),
            ("cosh", Trig.Cosh),
            ("tanh", Trig.Tanh),
            ("asinh", Trig.Asinh),
        ];
        Gen.Double[0.01, 3]
            .Sample(x =>
            {
                foreach (var (name, theirs) in functions)
                    Same(theirs(x), Formula.Read($"{name} x", ["x"]).At(x));
                // Whole numbers and what lies between them.
                Same(SpecialFunctions.Gamma(x + 1), Formula.Read("x!", ["x"]).At(x));
            });
        Same(SpecialFunctions.Factorial(20), Formula.Read("20!", []).At());

        static void Same(double theirs, double ours) =>
            Assert.InRange(ours, theirs - Math.Abs(theirs) * 1e-10, theirs + Math.Abs(theirs) * 1e-10);
    }

    [Theory]
    [InlineData("")]
    [InlineData("   ")]
    [InlineData("1+")]
    [InlineData("*2")]
    [InlineData("(1")]
    [InlineData("1)")]
    [InlineData("(1]")]
    [InlineData("()")]
    [InlineData("sin")]
    [InlineData("sin()")]
    [InlineData("root(2)")]
    [InlineData("root 2")]
    [InlineData("sin(1, 2)")]
    [InlineData("1, 2")]
    [InlineData("1.2.3")]
    [InlineData("2 $ 3")]
    [InlineData("velocity")]
    [InlineData("!")]
    [InlineData("²")]
    [InlineData("sin^x 1")]
    [InlineData("sin^-1 1")]
    public void What_is_no_formula_is_refused_with_a_sentence(string text) =>
        Assert.NotEmpty(Assert.Throws<FormulaException>(() => Formula.Read(text, ["x"])).Sentence.English);

    [Fact]
    public void Nested_ten_thousand_deep_and_x_to_the_x_to_the_x_have_an_outcome()
    {
        var deep = new string('(', 900) + "1" + new string(')', 900);
        Assert.Contains("200 deep", Assert.Throws<FormulaException>(() => Formula.Read(deep, [])).Message, StringComparison.Ordinal);
        var deeper = new string('(', 10_000) + "1" + new string(')', 10_000);
        Assert.Contains("2000 letters", Assert.Throws<FormulaException>(() => Formula.Read(deeper, [])).Message, StringComparison.Ordinal);
        var right = string.Concat(Enumerable.Repeat("1^", 900)) + "1";
        Assert.Equal(1, Formula.Read(right, []).At());
        Assert.Equal(Math.Pow(3, 27), Formula.Read("x^x^x", ["x"]).At(3));
        Assert.Equal(double.PositiveInfinity, Formula.Read("x^x^x", ["x"]).At(10));
        Assert.Equal(double.PositiveInfinity, Formula.Read("1/0", []).At());
        Assert.True(double.IsNaN(Formula.Read("0/0", []).At()));
        Assert.True(double.IsNaN(Formula.Read("sqrt -1", []).At()));
        Assert.True(double.IsNaN(Formula.Read("(-1)!", []).At()));
    }

    [Fact]
    public void Whatever_is_typed_is_a_formula_or_refused() =>
        Gen.Char["0123456789.+-*/^()[]|,;!%°√²xyzsincotalgre π_\n"]
            .Array[0, 30]
            .Select(letters => new string(letters))
            .Sample(text =>
            {
                try
                {
                    Formula.Read(text, ["x", "y"]).At(0.5, 2);
                }
                catch (FormulaException problem)
                {
                    Assert.InRange(problem.At, 0, Math.Max(text.Length, Formula.MostLetters));
                }
            });
}
