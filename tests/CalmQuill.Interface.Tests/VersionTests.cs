namespace CalmQuill.Interface.Tests;

/// <summary>What a build of the application is served as.</summary>
public sealed class VersionTests : InterfaceTest
{
    [Fact]
    public async Task Core_lies_in_a_folder_of_its_own_build_that_may_be_kept_for_ever()
    {
        var browser = OpenPage(Group.Writer);
        var core = (string)
            browser.Script(
                "return performance.getEntriesByType('resource').map((one) => new URL(one.name).pathname).find((one) => one.endsWith('dotnet.js'))"
            )!;
        Assert.Matches("^/assets/core-[0-9a-f]{12}/dotnet.js$", core);
        using var http = new HttpClient { BaseAddress = Host.Address };
        using var answer = await http.GetAsync(core);
        Assert.Contains("immutable", answer.Headers.CacheControl!.ToString(), StringComparison.Ordinal);
    }
}
