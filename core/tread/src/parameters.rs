//! Constants of the model that carry doubt, and how much (docs/TREAD_MODEL.md, section 2).

/// Constants of the model that carry doubt (see `docs/TREAD_MODEL.md` section 2 for ranges).
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Parameters {
    pub n: f64,
    pub c_scale: f64,
    pub mu: f64,
    pub kappa_g: f64,
    pub spin: f64,
    pub k_f: f64,
    pub b_p: f64,
    pub sig_free_deg: f64,
    pub sev: f64,
    pub kz_scale: f64,
    pub width_scale: f64,
}

impl Default for Parameters {
    fn default() -> Self {
        Self {
            n: 1.15,
            c_scale: 1.0,
            mu: 0.95,
            kappa_g: 1.8,
            spin: 0.25,
            k_f: 1.0,
            b_p: 1.0,
            sig_free_deg: 0.30,
            sev: 1.0,
            kz_scale: 1.0,
            width_scale: 1.0,
        }
    }
}

/// Doubtful constants: name, one standard deviation, what it changes (`docs/TREAD_MODEL.md` section 2).
type Step = (&'static str, f64, fn(&mut Parameters, f64));
pub(crate) const STEPS: [Step; 8] = [
    ("n", 0.12, |p, d| p.n += d),
    ("c_scale", 0.15, |p, d| p.c_scale *= d.exp()),
    ("mu", 0.08, |p, d| p.mu *= d.exp()),
    ("kappa_g", 0.30, |p, d| p.kappa_g *= d.exp()),
    ("spin", 0.50, |p, d| p.spin *= d.exp()),
    ("k_f", 0.35, |p, d| p.k_f *= d.exp()),
    ("b_p", 0.35, |p, d| p.b_p *= d.exp()),
    ("sig_free", 0.30, |p, d| p.sig_free_deg *= d.exp()),
];
