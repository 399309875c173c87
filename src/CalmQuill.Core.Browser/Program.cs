namespace CalmQuill.Core.Browser;

/// <summary>The runtime wants an entry point; all work is done through the exported functions.</summary>
internal static class Program
{
    private static void Main() { }
}
