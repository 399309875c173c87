using CalmQuill.Core.Numbers;
using CalmQuill.Core.Units;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>What things are measured in, and fractions of any size.</summary>
public sealed class UnitTests
{
    // By definition: BIPM, SI Brochure, 9th edition (2019), tables 4 and 8; the international yard and pound agreement (1959).
    [Theory]
    [InlineData("mm", "1/1000", "m")]
    [InlineData("inch", "127/5000", "m")]
    [InlineData("ft", "381/1250", "m")]
    [InlineData("l", "1/1000", "m³")]
    [InlineData("bar", "100000", "Pa")]
    [InlineData("kWh", "3600000", "J")]
    [InlineData("h", "3600", "s")]
    [InlineData("t", "1000", "kg")]
    [InlineData("kΩ", "1000", "Ω")]
    [InlineData("kohm", "1000", "Ω")]
    [InlineData("rpm", "1/60", "Hz")]
    [InlineData("m/s^2", "1", "m/s²")]
    [InlineData("km/h", "5/18", "m/s")]
    [InlineData("N·m", "1", "J")]
    [InlineData("kg*m²/s²", "1", "J")]
    [InlineData("g/cm^3", "1000", "kg/m³")]
    [InlineData("mm²", "1/1000000", "m²")]
    [InlineData("V/A", "1", "Ω")]
    public void A_unit_is_so_many_of_the_coherent_one(string unit, string factor, string coherent)
    {
        var read = UnitReader.Read(unit)!;
        Assert.Equal(factor, read.Factor.ToString());
        var other = UnitReader.Read(coherent)!;
        Assert.Equal(other.Dimension, read.Dimension);
        Assert.Equal(Exact.One, other.Factor);
    }

    [Theory]
    [InlineData("")]
    [InlineData("x")]
    [InlineData("mx")]
    [InlineData("m//s")]
    [InlineData("m/")]
    [InlineData("2m")]
    public void What_is_no_unit_is_none(string text) => Assert.Null(UnitReader.Read(text));

    [Fact]
    public void Every_unit_is_read_as_it_is_shown() =>
        Assert.All(
            UnitTable.All,
            one =>
                Assert.Equal(
                    (one.Value.Factor, one.Value.Dimension),
                    (UnitReader.Read(one.Key)!.Factor, UnitReader.Read(one.Key)!.Dimension)
                )
        );

    [Fact]
    public void Products_of_units_are_read_as_they_are_shown() =>
        Gen.Select(Gen.Int[-3, 3], Gen.Int[-3, 3], Gen.Int[-3, 3])
            .Where((length, mass, time) => (length, mass, time) != (0, 0, 0))
            .Sample(
                (length, mass, time) =>
                {
                    var dimension = new Dimension(length, mass, time, 0, 0, 0, 0);
                    var name = UnitTable.Of(dimension).Name;
                    // What has nothing over its line is not read behind a number.
                    if (!name.StartsWith('1'))
                        Assert.Equal(dimension, UnitReader.Read(name)!.Dimension);
                }
            );

    /// <summary>Against the framework's decimal numbers.</summary>
    [Fact]
    public void Fractions_are_reckoned_exactly() =>
        Gen.Select(Gen.Int[-9_999, 9_999], Gen.Int[1, 999], Gen.Int[-9_999, 9_999], Gen.Int[1, 999])
            .Sample(
                (a, b, c, d) =>
                {
                    Exact one = new(a, b),
                        other = new(c, d);
                    Assert.Equal(new Exact(a * (long)d + c * (long)b, b * (long)d), one + other);
                    Assert.Equal(one, one + other - other);
                    Assert.Equal(Math.Sign((decimal)a / b - (decimal)c / d), Math.Sign(one.CompareTo(other)));
                    Assert.Equal((double)a / b, one.ToDouble(), 1e-12);
                    if (c != 0)
                        Assert.Equal(one, one / other * other);
                    Assert.Equal(Exact.Abs(one), (one * one).Root(2));
                }
            );

    [Theory]
    [InlineData("1/8", 3)]
    [InlineData("3/50", 2)]
    [InlineData("7", 0)]
    [InlineData("1/3", null)]
    public void It_is_known_how_many_decimals_a_fraction_has(string fraction, int? decimals)
    {
        var parts = fraction.Split('/');
        Assert.Equal(decimals, new Exact(int.Parse(parts[0]), parts.Length > 1 ? int.Parse(parts[1]) : 1).Decimals);
    }

    [Fact]
    public void Numbers_do_not_grow_without_end()
    {
        Assert.Throws<OverflowException>(() => new Exact(7, 3).Power(10_000));
        Assert.Throws<OverflowException>(() => new Exact(7, 3).Power(int.MinValue + 1));
        Assert.Equal(1e300, new Exact(System.Numerics.BigInteger.Pow(10, 900), System.Numerics.BigInteger.Pow(10, 600)).ToDouble(), 1e287);
    }
}
