namespace CalmQuill.Server;

/// <summary>What the server is told from outside.</summary>
/// <param name="Database">Npgsql connection string.</param>
/// <param name="Address">Where to listen, for example <c>http://127.0.0.1:5480</c>; port 0 takes a free one.</param>
/// <param name="FrontEnd">The folder of the built front end.</param>
/// <param name="Secrets">The folder in which keys are made at first start.</param>
/// <param name="Redis">Address of a Redis server when several servers share the live traffic; null otherwise.</param>
/// <param name="CalendarHosts">Hosts with ports, parted by commas, from which calendars are fetched although they are not public: <c>127.0.0.1:5490</c>.</param>
/// <param name="SignInsAMinute">How often a minute one e-mail address may be tried.</param>
public sealed record Settings(string Database, string Address, string FrontEnd, string Secrets, string? Redis = null, string CalendarHosts = "", int SignInsAMinute = 10)
{
    /// <exception cref="InvalidOperationException">A variable that is needed is missing.</exception>
    public static Settings FromEnvironment() => new(
        Needed("QUILL_DATABASE"),
        Environment.GetEnvironmentVariable("QUILL_ADDRESS") ?? "http://127.0.0.1:5480",
        Needed("QUILL_FRONT_END"),
        Needed("QUILL_SECRETS"),
        Environment.GetEnvironmentVariable("QUILL_REDIS"),
        Environment.GetEnvironmentVariable("QUILL_CALENDAR_HOSTS") ?? "");

    private static string Needed(string name) =>
        Environment.GetEnvironmentVariable(name) ?? throw new InvalidOperationException($"The environment variable {name} is not set; ./quill sets it.");
}
