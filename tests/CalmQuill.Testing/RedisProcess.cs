using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;

namespace CalmQuill.Testing;

/// <summary>A Redis server of its own on loopback, which keeps nothing.</summary>
public sealed class RedisProcess : IDisposable
{
    private readonly Process process;
    private readonly int port;

    private RedisProcess(Process process, int port) => (this.process, this.port) = (process, port);

    public string Address => $"127.0.0.1:{port}";

    /// <summary>Starts one, and waits until it answers.</summary>
    public static async Task<RedisProcess> Start()
    {
        var port = FreePort();
        var process = Process.Start(
            new ProcessStartInfo(
                "redis-server",
                ["--port", port.ToString(CultureInfo.InvariantCulture), "--bind", "127.0.0.1", "--save", "", "--appendonly", "no"]
            )
            {
                RedirectStandardOutput = true,
            }
        )!;
        var started = new RedisProcess(process, port);
        for (var tries = 0; !started.Answers(); tries++)
        {
            if (tries > 200 || process.HasExited)
                throw new InvalidOperationException("Redis did not start.");
            await Task.Delay(50);
        }

        return started;
    }

    public void Kill()
    {
        if (!process.HasExited)
            process.Kill();
    }

    public void Dispose()
    {
        Kill();
        process.Dispose();
    }

    private bool Answers()
    {
        try
        {
            using var client = new TcpClient("127.0.0.1", port);
            return true;
        }
        catch (SocketException)
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
