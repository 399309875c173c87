using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using CalmQuill.Testing;

namespace CalmQuill.Server.Tests;

/// <summary>The one command, as it is used: what it started is gone when it ends, however the server came to its end.</summary>
public sealed class CommandTests : IDisposable
{
    private readonly string data = Directory.CreateTempSubdirectory("quill-command").FullName;

    public void Dispose()
    {
        using var stop = Quill("stop", 0);
        stop.WaitForExit();
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task A_server_that_was_killed_takes_its_database_with_it_and_the_command_says_so()
    {
        // What is built is built already.
        Directory.CreateDirectory(Path.Combine(data, "built"));
        foreach (var file in Directory.GetFiles(Path.Combine(Repository.Root, ".quill", "built")))
            File.Copy(file, Path.Combine(data, "built", Path.GetFileName(file)));
        var port = FreePort();
        using var quill = Quill("start", port);
        var problems = quill.StandardError.ReadToEndAsync();
        var pid = Path.Combine(data, "server.pid");
        while (await quill.StandardOutput.ReadLineAsync().WaitAsync(TimeSpan.FromSeconds(90)) is { } line)
        {
            if (line.Contains("Ctrl-C", StringComparison.Ordinal))
                break;
        }

        using (
            var server = Process.GetProcessById(
                int.Parse(await File.ReadAllTextAsync(pid), System.Globalization.CultureInfo.InvariantCulture)
            )
        )
            server.Kill();
        var said = await quill.StandardOutput.ReadToEndAsync();
        await quill.WaitForExitAsync();
        Assert.Equal(137, quill.ExitCode);
        Assert.Contains("ended by itself", said, StringComparison.Ordinal);
        Assert.DoesNotContain("unbound", await problems, StringComparison.Ordinal);
        Assert.False(File.Exists(pid));
        using var postgres = Process.Start(new ProcessStartInfo("pgrep", ["-f", $"{data}|{Hash}"]) { RedirectStandardOutput = true })!;
        await postgres.WaitForExitAsync();
        Assert.Equal("", await postgres.StandardOutput.ReadToEndAsync());
    }

    /// <summary>As root the database lies elsewhere, under a name made of this folder's.</summary>
    private string Hash =>
        Convert.ToHexStringLower(System.Security.Cryptography.SHA1.HashData(System.Text.Encoding.UTF8.GetBytes(data + "\n")))[..12];

    private Process Quill(string command, int port) =>
        Process.Start(
            new ProcessStartInfo(Path.Combine(Repository.Root, "quill"), command)
            {
                Environment = { ["QUILL_DATA"] = data, ["QUILL_PORT"] = port.ToString(System.Globalization.CultureInfo.InvariantCulture) },
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
