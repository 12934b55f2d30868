#pragma once

#include <Eigen/Core>

namespace glow::transport {

/// Solves apply(x) = right for a symmetric positive operator, preconditioned by its `diagonal`, from the
/// first guess in `x` to a residual of `tolerance` times |right|. Gives the relative residual reached, and in
/// `rest` right - apply(x).
template <class Apply>
double conjugate_gradients(const Apply& apply, const Eigen::VectorXd& diagonal, const Eigen::VectorXd& right,
                           double tolerance, int most_steps, Eigen::VectorXd& x, Eigen::VectorXd& rest) {
  const double scale = right.norm();
  if (scale == 0) {
    x.setZero();
    rest = right;
    return 0;
  }
  rest = right - apply(x);
  Eigen::VectorXd z = rest.cwiseQuotient(diagonal), p = z;
  double rz = rest.dot(z);
  for (int step = 0; step < most_steps && rest.norm() > tolerance * scale; ++step) {
    const Eigen::VectorXd ap = apply(p);
    const double alpha = rz / p.dot(ap);
    x += alpha * p;
    rest -= alpha * ap;
    z = rest.cwiseQuotient(diagonal);
    const double next = rest.dot(z);
    p = z + (next / rz) * p;
    rz = next;
  }
  return rest.norm() / scale;
}

/// The same for who does not ask what rest is left.
template <class Apply>
double conjugate_gradients(const Apply& apply, const Eigen::VectorXd& diagonal, const Eigen::VectorXd& right,
                           double tolerance, int most_steps, Eigen::VectorXd& x) {
  Eigen::VectorXd rest;
  return conjugate_gradients(apply, diagonal, right, tolerance, most_steps, x, rest);
}

}  // namespace glow::transport
