namespace CalmQuill.Testing;

/// <summary>Where things lie in the checkout that the tests were built from.</summary>
public static class Repository
{
    public static string Root { get; } = FindRoot();

    public static string FrontEnd => Path.Combine(Root, "src/web/dist");

    public static string Fonts => Path.Combine(Root, "src/web/node_modules/hersheytext");

    /// <summary>The built program of a project, in the configuration that the tests run in.</summary>
    public static string Program(string project)
    {
        var configuration = AppContext.BaseDirectory.Contains("/Release/", StringComparison.Ordinal) ? "Release" : "Debug";
        return Path.Combine(Root, $"src/{project}/bin/{configuration}/net10.0/{project}.dll");
    }

    private static string FindRoot()
    {
        var at = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(at, "CalmQuill.slnx")))
            at = Path.GetDirectoryName(at) ?? throw new InvalidOperationException("The tests run outside their checkout.");
        return at;
    }
}
