using System.Diagnostics;
using System.Net;
using System.Net.Sockets;

namespace CalmQuill.Testing;

/// <summary>The real server as a process of its own, which can be killed in the middle of anything and started again at the same address.</summary>
public sealed class ServerProcess : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);
    private readonly string database,
        frontEnd,
        secrets;
    private Process? process;

    public ServerProcess(string database, string frontEnd, string secrets)
    {
        (this.database, this.frontEnd, this.secrets) = (database, frontEnd, secrets);
        Address = new Uri($"http://127.0.0.1:{FreePort()}");
    }

    public Uri Address { get; }

    /// <summary>Starts it, and waits until it answers.</summary>
    public async Task Start()
    {
        for (var patience = Stopwatch.StartNew(); ; )
        {
            if (process is null || process.HasExited)
                process = Process.Start(
                    new ProcessStartInfo("dotnet", [Repository.Program("CalmQuill.Server")])
                    {
                        Environment =
                        {
                            ["QUILL_DATABASE"] = database,
                            ["QUILL_ADDRESS"] = Address.ToString(),
                            ["QUILL_FRONT_END"] = frontEnd,
                            ["QUILL_SECRETS"] = secrets,
                            ["QUILL_LIMIT_REQUESTS"] = "1000000",
                            ["QUILL_LIMIT_REQUESTS_SIGNED_OUT"] = "1000000",
                            ["QUILL_LIMIT_SIGN_INS"] = "100000",
                            ["QUILL_LIMIT_DEVICES"] = "1000",
                        },
                    }
                )!;
            if (await Answers())
                return;
            if (patience.Elapsed > Patience)
                throw new TimeoutException("The server does not start.");
            await Task.Delay(50);
        }
    }

    /// <summary>As <c>kill -9</c> does it: nothing is finished, nothing is said.</summary>
    public void Kill()
    {
        if (process is null || process.HasExited)
            return;
        process.Kill();
        process.WaitForExit();
    }

    public void Dispose()
    {
        Kill();
        process?.Dispose();
    }

    private async Task<bool> Answers()
    {
        using var http = new HttpClient { BaseAddress = Address, Timeout = TimeSpan.FromSeconds(5) };
        try
        {
            return (await http.GetAsync("/health")).IsSuccessStatusCode;
        }
        catch (Exception away) when (away is HttpRequestException or TaskCanceledException)
        {
            return false;
        }
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
