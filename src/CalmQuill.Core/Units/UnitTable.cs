using CalmQuill.Core.Numbers;

namespace CalmQuill.Core.Units;

/// <summary>
/// The units that a workshop and a school use, with what they are by definition (BIPM, SI Brochure, 9th edition, tables 2, 4 and 8; the inch and the foot by the
/// international yard and pound agreement of 1959).
/// </summary>
public static class UnitTable
{
    private static readonly Dimension Length = new(1, 0, 0, 0, 0, 0, 0),
        Mass = new(0, 1, 0, 0, 0, 0, 0),
        Time = new(0, 0, 1, 0, 0, 0, 0),
        Current = new(0, 0, 0, 1, 0, 0, 0),
        Temperature = new(0, 0, 0, 0, 1, 0, 0),
        Amount = new(0, 0, 0, 0, 0, 1, 0),
        Light = new(0, 0, 0, 0, 0, 0, 1),
        Force = Mass * Length / Time.Power(2),
        Energy = Force * Length,
        Power = Energy / Time,
        Charge = Current * Time,
        Voltage = Power / Current,
        Pressure = Force / Length.Power(2);

    /// <summary>The coherent units that have a name, in the order in which one is chosen for what was worked out.</summary>
    private static readonly (string Name, Dimension Dimension, string Prefixes)[] Coherent =
    [
        ("m", Length, "kdcmµn"),
        ("s", Time, "mµn"),
        ("A", Current, "kmµ"),
        ("K", Temperature, "m"),
        ("mol", Amount, "m"),
        ("cd", Light, ""),
        ("N", Force, "kMm"),
        ("J", Energy, "kMm"),
        ("W", Power, "kMGmµ"),
        ("Pa", Pressure, "khMG"),
        ("V", Voltage, "kMmµ"),
        ("Ω", Voltage / Current, "kMm"),
        ("C", Charge, "mµ"),
        ("F", Charge / Voltage, "mµnp"),
        ("H", Voltage * Time / Current, "mµ"),
        ("T", Voltage * Time / Length.Power(2), "mµ"),
        ("Hz", Time.Power(-1), "kMG"),
    ];

    private static readonly (string Name, Exact Factor, Dimension Dimension)[] Others =
    [
        ("kg", 1, Mass),
        ("g", new(1, 1_000), Mass),
        ("mg", new(1, 1_000_000), Mass),
        ("t", 1_000, Mass),
        ("min", 60, Time),
        ("h", 3_600, Time),
        ("d", 86_400, Time),
        ("l", new(1, 1_000), Length.Power(3)),
        ("cl", new(1, 100_000), Length.Power(3)),
        ("ml", new(1, 1_000_000), Length.Power(3)),
        ("ha", 10_000, Length.Power(2)),
        ("inch", new(254, 10_000), Length),
        ("ft", new(3_048, 10_000), Length),
        ("bar", 100_000, Pressure),
        ("mbar", 100, Pressure),
        ("Wh", 3_600, Energy),
        ("kWh", 3_600_000, Energy),
        ("Ah", 3_600, Charge),
        ("mAh", new(36, 10), Charge),
        ("rpm", new(1, 60), Time.Power(-1)),
        ("rad", 1, Dimension.None),
    ];

    private static readonly Dictionary<char, int> Prefixes = new()
    {
        ['G'] = 9,
        ['M'] = 6,
        ['k'] = 3,
        ['h'] = 2,
        ['d'] = -1,
        ['c'] = -2,
        ['m'] = -3,
        ['µ'] = -6,
        ['n'] = -9,
        ['p'] = -12,
    };

    /// <summary>All of them by their names.</summary>
    public static readonly IReadOnlyDictionary<string, Unit> All = Make();

    /// <summary>Other ways in which keyboards write them.</summary>
    private static readonly Dictionary<string, string> Also = new()
    {
        ["ohm"] = "Ω",
        ["kohm"] = "kΩ",
        ["um"] = "µm",
        ["us"] = "µs",
        ["L"] = "l",
        ["mL"] = "ml",
        ["\u03BCm"] = "µm",
        ["\u03BCs"] = "µs",
        ["\u2126"] = "Ω",
    };

    public static Unit? Find(string name) => All.GetValueOrDefault(Also.GetValueOrDefault(name, name));

    /// <summary>The coherent unit of a dimension that has a name of its own; null where there is none.</summary>
    public static Unit? Named(Dimension dimension) =>
        dimension == Mass ? All["kg"]
        : Coherent.FirstOrDefault(one => one.Dimension == dimension).Name is { } name ? All[name]
        : null;

    /// <summary>The coherent unit of a dimension: one with a name, or a product of the base units, such as m/s².</summary>
    public static Unit Of(Dimension dimension)
    {
        if (Named(dimension) is { } named)
            return named;
        string[] names = ["m", "kg", "s", "A", "K", "mol", "cd"];
        var powers = dimension.Powers;
        var over = string.Join(
            '·',
            names.Select((name, i) => (name, power: powers[i])).Where(one => one.power > 0).Select(one => Raised(one.name, one.power))
        );
        var under = names
            .Select((name, i) => (name, power: -powers[i]))
            .Where(one => one.power > 0)
            .Select(one => Raised(one.name, one.power))
            .ToList();
        var text = (over, under.Count) switch
        {
            (_, 0) => over,
            ("", _) => "1/" + string.Join('/', under),
            _ => over + "/" + string.Join('/', under),
        };
        return new Unit(text, 1, dimension);
    }

    internal static string Raised(string name, int power) =>
        power == 1 ? name : name + string.Concat(power.ToString(System.Globalization.CultureInfo.InvariantCulture).Select(RaisedSign));

    private static char RaisedSign(char digit) => digit == '-' ? '⁻' : Reckoning.FormulaReader.Raised[digit - '0'];

    private static Dictionary<string, Unit> Make()
    {
        var all = Others.ToDictionary(one => one.Name, one => new Unit(one.Name, one.Factor, one.Dimension));
        foreach (var (name, dimension, prefixes) in Coherent)
        {
            all[name] = new Unit(name, 1, dimension);
            foreach (var prefix in prefixes)
                all[prefix + name] = new Unit(prefix + name, ((Exact)10).Power(Prefixes[prefix]), dimension);
        }

        return all;
    }
}
