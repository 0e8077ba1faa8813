import type { Highs, Model as HighsModel } from 'highs'
import type { Model } from '../../core/order/model'
import { gapOf, type Solved, type Solver } from '../../core/order/solver'

/** HiGHS as the solver of orders. */
export const highsSolver =
  (highs: Highs): Solver =>
  (model, { gap, seconds }, tell = () => {}) => {
    // nothing is asked, and a solver has no answer to that
    if (model.columns.length === 0) return { status: 'proved', values: new Float64Array(), objective: 0, bound: 0 }
    return highs.withModel(modelData(highs, model), (solver): Solved => {
      solver.options.set('output_flag', false)
      solver.options.set('mip_rel_gap', gap)
      solver.options.set('time_limit', seconds)
      const { callbackType, modelStatus } = highs.constants
      const run = () =>
        solver.run({
          [callbackType.mipImprovingSolution]: ({ data }) => {
            const values = data.mip_solution
            if (values && data.objective_function_value !== undefined)
              tell({
                values: Float64Array.from(values),
                objective: data.objective_function_value,
                bound: data.mip_dual_bound ?? 0,
              })
          },
        })
      run()
      if (solver.getModelStatus() === modelStatus.infeasible) {
        // its presolve calls about one in a thousand small models with a budget impossible that are not (measured with this version)
        solver.options.set('presolve', 'off')
        solver.clearSolver()
        run()
      }
      const status = solver.getModelStatus()
      if (status === modelStatus.infeasible) return { status: 'impossible' }
      const { values, objective } = solutionOf(solver)
      const bound = Number(solver.info.get('mip_dual_bound'))
      if (status !== modelStatus.optimal) return { status: 'out of time', values, objective, bound }
      return { status: gapOf({ objective, bound }) > 1e-6 ? 'near enough' : 'proved', values, objective, bound }
    })
  }

function solutionOf(solver: HighsModel) {
  return { values: Float64Array.from(solver.getSolution().colValue), objective: solver.getObjectiveValue() }
}

/** The model row by row, as the solver takes it. */
function modelData(highs: Highs, { columns, rows }: Model) {
  const starts = [0]
  const indices: number[] = []
  const values: number[] = []
  for (const { terms } of rows) {
    for (const [column, factor] of terms) {
      indices.push(column)
      values.push(factor)
    }
    starts.push(indices.length)
  }
  const { integer, continuous } = highs.constants.variableType
  return {
    numCols: columns.length,
    numRows: rows.length,
    colCost: columns.map(({ cost }) => cost),
    colLower: columns.map(() => 0),
    colUpper: columns.map(({ most }) => most),
    rowLower: rows.map(({ least }) => least),
    rowUpper: rows.map(({ most }) => most),
    matrix: { format: 'csr' as const, numRows: rows.length, numCols: columns.length, starts, indices, values },
    integrality: columns.map(({ whole }) => (whole ? integer : continuous)),
  }
}
