"""The same work as our benchmarks, by numpy, scipy and pandas: one line a piece, its name and milliseconds."""
import io
import time


def least(work, times):
    work()
    best = float("inf")
    for _ in range(times):
        start = time.perf_counter()
        work()
        best = min(best, time.perf_counter() - start)
    return 1e3 * best


def say(name, work, times=7):
    print(name, "%.4f" % least(work, times), flush=True)


try:
    import numpy as np
except ImportError:
    raise SystemExit("numpy is not installed")

random = np.random.default_rng(1)


def draws():
    a, b, c, d, e, f, g, h, i, j = (1 + 0.3 * k + 0.05 * random.standard_normal(1_000_000) for k in range(10))
    return np.std((a + b) * c / (d + e) + f * g - h**2 / (i + 5) + np.sin(j))


say("monteCarloOfAMillion", draws, 3)

noise = random.standard_normal(1_000_000)
moments = np.arange(1_000_000) * 1e-5


def statistics():
    d = noise - noise.mean()
    lags = np.fft.irfft(np.abs(np.fft.rfft(d, 2 * d.size)) ** 2)[:20]
    return np.median(noise), noise.std(ddof=1), noise.min(), noise.max(), np.polyfit(moments, noise, 1), lags


say("windowStatisticsOfAMillion", statistics, 3)

try:
    from scipy.optimize import curve_fit

    x = np.arange(10_000) * 10 / 10_000
    y = 1 + 5 * np.exp(-x / 2) + 0.1 * x + 0.05 * random.standard_normal(x.size)
    say("formulaFit", lambda: curve_fit(lambda x, p, q, r, s: p + q * np.exp(-x / r) + s * x, x, y, p0=(0.5, 4, 1, 0)), 30)
except ImportError:
    print("# scipy is not installed", flush=True)

try:
    import pandas

    text = "time (s),x (V),y (V)\n" + "".join("%.4f,%.5f,%.5f\n" % (k * 1e-4, *random.standard_normal(2)) for k in range(300_000))
    say("delimitedText", lambda: pandas.read_csv(io.StringIO(text)))
except ImportError:
    print("# pandas is not installed", flush=True)
