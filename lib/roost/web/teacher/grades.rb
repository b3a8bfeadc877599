# frozen_string_literal: true

module Roost
  module Web
    # The gradebook of a class: students by what they did, in one of several readings, and how it is put together.
    class Grades < TeacherApp
      READINGS = { "percent" => "Percent", "correct" => "Correct", "points" => "Points", "grade" => "Grade" }.freeze
      # Fields of a column's page.
      FIELDS = %w[title on_date possible category weight absent_zero].freeze

      get "/:id/grades" do
        gone = params["out"] && books.find(account_id, klass.id, number("out") || 0)
        page("classes/grades", title: "Grades", book: book, klass: klass, gone: (gone if gone&.deleted))
      end

      get "/:id/grades.csv" do
        content_type "text/csv; charset=utf-8"
        attachment "#{file_name("Grades #{klass.name}")}.csv"
        Exchange::GradeSheet.new(book, ->(entry) { in_reading(entry) }, date: ->(time) { date(time) }).to_csv
      end

      get("/:id/grades/rules") { rules_page(books.rules(account_id, klass.id)) }

      post "/:id/grades/rules" do
        saved = Operations::KeepGradeRules.new.call(account_id, klass.id, params) || not_found
        redirect "/classes/#{klass.id}/grades", 303 if saved.ok?

        status 422
        rules_page(books.rules(account_id, klass.id), typed: params, reason: saved.reason)
      end

      get "/:id/grades/changes" do
        page("classes/grade_changes", title: "Changes to grades", klass: klass, changes: books.changes(account_id, klass.id),
                                      names: students.to_h { |student| [student.id, student.full_name] })
      end

      get("/:id/grades/columns/new") { column_page(nil, {}) }

      post "/:id/grades/columns" do
        next pasted(nil) if params["do"] == "paste"

        kept(Operations::KeepGradeColumn.new.create(account_id, klass.id, params), nil)
      end

      get "/:id/grades/columns/:key" do |_, key|
        column = column(key)
        column_page(column, stored(column))
      end

      post "/:id/grades/columns/:key" do |_, key|
        column = column(key)
        next pasted(column) if params["do"] == "paste"

        kept(Operations::KeepGradeColumn.new.change(account_id, klass.id, key, params), column)
      end

      post "/:id/grades/columns/:key/out" do |_, key|
        out = params["out"] == "1"
        granted(Operations::KeepGradeColumn.new.delete(account_id, klass.id, key, deleted: out))
        redirect "/classes/#{klass.id}/grades#{"?out=#{key.delete("c")}" if out}", 303
      end

      helpers do
        def klass = @klass ||= Store::Classes.new.find(account_id, whole(params["id"])) || not_found

        def students = @students ||= Store::Students.new.of_class(klass.id)

        def books = @books ||= Store::Gradebooks.new

        def book = @book ||= Operations::GradeClass.new.call(account_id, klass.id)

        def reading = READINGS.key?(text("as")) ? text("as") : "percent"

        def scale = @scale ||= Store::School.new.settings.scale

        # What stands in a cell, as it is read; "" where there is nothing.
        # @param entry [Core::Grading::Gradebook::Entry, Core::Grading::Gradebook::Total, nil]
        # @return [String]
        def in_reading(entry)
          return "" if entry.nil? || entry.share.nil?

          case reading
          when "correct" then "#{Why.number(entry.right)}/#{Why.number(entry.marked)}"
          when "points" then entry.points ? Why.number(entry.points) : ""
          when "grade" then graded(entry.share)
          else percent(entry.share)
          end
        end

        # @param steps [Array<Core::Step>, nil]
        # @return [String]
        def graded(share, steps: nil)
          grade = scale.grade(share, steps: steps)
          grade.is_a?(String) ? grade : Why.number(grade)
        end

        def why(student)
          steps = []
          total = book.total(student.id, steps: steps)
          graded(total.share, steps: steps) if total.share && reading == "grade"
          steps
        end

        # Signs beside what stands in a cell, of what does not count.
        # @param entry [Core::Grading::Gradebook::Entry]
        # @return [String] HTML
        def beside(entry)
          [("not_reached" if entry.absent), ("late" if entry.late.positive?), ("to_mark" if entry.waiting.positive?)]
            .compact.map { |status| badge(status.to_sym) }.join(" ")
        end

        # @return [Core::Grading::Gradebook::Column] of the book
        def column(key) = book.columns.find { |each| each.id == key } || not_found

        # What a column's form says.
        def stored(column)
          category = column.category_id.to_s
          about = { "title" => column.title, "on_date" => school_time.local(column.at).strftime("%Y-%m-%d"),
                    "possible" => column.possible && Core::NumberText.show(column.possible), "category" => category,
                    "weight" => Core::NumberText.show(column.weight), "absent_zero" => column.absent_zero ? "1" : "" }
          was = students.to_h { |student| [student.id.to_s, standing(student, column)] }
          { **about, "points" => was, "was" => was }
        end

        # What stands in the field of a student.
        def standing(student, column)
          entry = book.entry(student.id, column)
          return "" if entry.nil? || entry.absent
          return Core::Grading::ColumnForm::EXCUSED if entry.excused

          column.own? ? Core::NumberText.show(entry.right) : ""
        end

        # What was sent, as texts, for the same page again.
        def typed
          tables = %w[points was].to_h do |name|
            fields = params[name].is_a?(Hash) ? params[name] : {}
            [name, fields.select { |_, value| value.is_a?(String) }]
          end
          { **FIELDS.to_h { |name| [name, text(name).to_s] }, **tables }
        end

        # The page again, with what was pasted in its fields. Nothing is saved yet.
        def pasted(column)
          found = Core::Grading::Pasted.read(params["pasted"], students)
          form = typed
          return refused(column, form, found.reason) unless found.ok?

          form["points"] = form["points"].merge(found.value.typed.transform_keys(&:to_s))
          column_page(column, form, left: found.value.left, came: found.value.typed.length)
        end

        def kept(saved, column)
          not_found unless saved
          saved.ok? ? redirect("/classes/#{klass.id}/grades", 303) : refused(column, typed, saved.reason)
        end

        def refused(column, form, reason)
          status 422
          column_page(column, form, reason: reason)
        end

        def column_page(column, form, **said)
          page("classes/grade_column", title: column&.title || "Add a column", klass: klass, column: column, form: form,
                                       categories: books.rules(account_id, klass.id).categories,
                                       reason: nil, left: [], came: nil, **said)
        end

        def rules_page(rules, typed: nil, reason: nil)
          page("classes/grade_rules", title: "How grades are put together", klass: klass, rules: rules, typed: typed,
reason: reason)
        end

        # Rows of categories as they stand in the form: those that there are or that were typed, and room for two more.
        # @return [Array<Hash>]
        def category_rows(rules, typed)
          rows = rules.categories.map do |each|
            { "id" => each.id, "name" => each.name, "weight" => Core::NumberText.show(each.weight), "dropped" => each.dropped }
          end
          rows = typed["categories"].values.grep(Hash) if typed && typed["categories"].is_a?(Hash)
          rows.reject { |row| row["name"].to_s.empty? } + Array.new(2) { { "name" => "", "weight" => "1", "dropped" => "0" } }
        end
      end
    end
  end
end
