namespace CalmQuill.Server.People;

/// <summary>What a browser and its machine are called in the list of devices, from what the browser says of itself (RFC 9110 §10.1.5). Only words of ours come out.</summary>
internal static class DeviceNames
{
    // The first that is found counts: browsers also name those they are like.
    private static readonly (string Sign, string Name)[] Browsers =
    [
        ("Edg", "Edge"),
        ("OPR/", "Opera"),
        ("Firefox/", "Firefox"),
        ("Chrom", "Chromium"),
        ("Safari/", "Safari"),
    ];

    private static readonly (string Sign, string Name)[] Machines =
    [
        ("iPad", "an iPad"),
        ("iPhone", "an iPhone"),
        ("Android", "an Android device"),
        ("Windows", "Windows"),
        ("Mac OS", "a Mac"),
        ("CrOS", "a Chromebook"),
        ("Linux", "Linux"),
    ];

    public static string Of(string agent) =>
        (Find(Browsers, agent), Find(Machines, agent)) switch
        {
            ({ } browser, { } machine) => $"{browser} on {machine}",
            ({ } browser, null) => browser,
            (null, { } machine) => $"A program on {machine}",
            _ => "A program",
        };

    private static string? Find((string Sign, string Name)[] known, string agent)
    {
        foreach (var (sign, name) in known)
        {
            if (agent.Contains(sign, StringComparison.Ordinal))
                return name;
        }

        return null;
    }
}
