# frozen_string_literal: true

module Roost
  module Operations
    # A column of a gradebook: one of the teacher's own with what she types, or what she says about that of a session.
    class KeepGradeColumn < KeepGradebook
      KEY = /\A([sc])(\d{1,18})\z/
      MOST = 200
      TOO_MANY = "A gradebook has at most #{MOST} columns of your own. Take one out first.".freeze
      TOO_FEW = "Somebody has more points than that already. Change their points first."
      ADDED = "column added"
      REMOVED = "column taken out"
      RESTORED = "column put back"

      # @param form [Hash] see Core::Grading::ColumnForm, and "points": Hash of student id to what was typed
      # @return [Core::Reading, nil] of the key of a new column; nil unless she teaches the class
      def create(account_id, class_id, form)
        keep(account_id, class_id) do |books|
          next Core::Reading.refused(TOO_MANY) if books.columns(account_id, class_id).count { |each| !each.session_id } >= MOST

          read(books, account_id, class_id, form, own: true).map do |about, entries|
            id = books.create(account_id, class_id, about)
            column = books.find(account_id, class_id, id)
            books.note(account_id, class_id, [noted(column).merge(about: ADDED, before: "", after: "")], by: account_id)
            put(books, account_id, class_id, column, entries)
            GradeClass.key(column)
          end
        end
      end

      # @param key [String] of Core::Grading::Gradebook::Column
      # @param form [Hash] as above, and "was": Hash of student id to what stood there when the page was made; what is the same
      #   is left as it is, whatever somebody has typed meanwhile
      # @return [Core::Reading, nil] of the key; nil when there is no such column
      def change(account_id, class_id, key, form)
        keep(account_id, class_id) do |books|
          column = find(books, account_id, class_id, key) || next
          read(books, account_id, class_id, form, own: !column.session_id).and_then do |about, entries|
            next Core::Reading.refused(TOO_FEW) if too_few?(books, column, entries, about[:possible])

            change_about(books, account_id, class_id, column, about)
            put(books, account_id, class_id, column, entries)
            Core::Reading.ok(key)
          end
        end
      end

      # Takes an own column out, or puts it back.
      # @return [Core::Reading, nil] of the key; nil when there is no such column
      def delete(account_id, class_id, key, deleted: true)
        keep(account_id, class_id) do |books|
          column = key.start_with?("c") && find(books, account_id, class_id, key)
          next nil unless column

          books.delete(column.id, deleted: deleted)
          words = deleted ? REMOVED : RESTORED
          books.note(account_id, class_id, [noted(column).merge(about: words, before: "", after: "")], by: account_id)
          Core::Reading.ok(key)
        end
      end

      private

      # @return [Store::Gradebooks::Column, nil] that of a session is made where nothing was said of it yet
      def find(books, account_id, class_id, key)
        kind, id = key.to_s.match(KEY)&.captures
        return books.find(account_id, class_id, id.to_i) if kind == "c"

        session = id && Store::Sessions.new.of_teacher(account_id, id.to_i)
        return nil unless session && session.class_id == class_id && session.ended_at

        books.find(account_id, class_id, books.of_session(account_id, class_id, session.id))
      end

      # @return [Core::Reading] of Array: columns, and Hash of student id to what they have from now on
      def read(books, account_id, class_id, form, own:)
        categories = books.rules(account_id, class_id).categories.map(&:id)
        Core::Grading::ColumnForm.read(form, own: own, categories: categories).and_then do |about|
          typed = changed(form)
          Core::Grading::ColumnForm.entries(typed, Store::Students.new.of_class(class_id), about[:possible])
                                   .map { |entries| [about, entries] }
        end
      end

      # What was typed and is not what stood there.
      def changed(form)
        typed, was = %w[points was].map { |name| form[name].is_a?(Hash) ? form[name] : {} }
        typed.reject { |id, text| was[id].to_s.strip == text.to_s.strip }
             .filter_map { |id, text| [id.to_i, text.to_s] if id.match?(/\A\d{1,18}\z/) }.to_h
      end

      # Whether what somebody keeps is more than is possible from now on.
      def too_few?(books, column, entries, possible)
        kept = books.entries([column.id]).reject { |(_, student_id), _| entries.key?(student_id) }
        possible && kept.each_value.any? { |entry| entry.points && entry.points > possible }
      end

      def change_about(books, account_id, class_id, column, about)
        before = said(books, account_id, class_id, column)
        books.change(column.id, about)
        changed = books.find(account_id, class_id, column.id)
        changes = differences(before, said(books, account_id, class_id, changed), **noted(changed))
        books.note(account_id, class_id, changes, by: account_id)
      end

      def put(books, account_id, class_id, column, entries)
        before = books.entries([column.id])
        changes = entries.flat_map do |student_id, value|
          one = before[[column.id, student_id]]
          differences({ points: one && (one.excused ? "excused" : one.points) }, { points: value },
                      **noted(column), student_id: student_id)
        end
        books.put(column.id, entries)
        Store::LookedAt.new.note(account_id, entries.keys, :grade, said: noted(column)[:column_title])
        books.note(account_id, class_id, changes, by: account_id)
      end

      def noted(column)
        title = column.session_id ? Store::Sessions.new.find(column.session_id).title : column.title
        { column_id: column.id, column_title: title }
      end

      def said(books, account_id, class_id, column)
        category = books.rules(account_id, class_id).categories.find { |each| each.id == column.category_id }
        { **(column.session_id ? {} : { name: column.title, date: column.on_date, "points possible": column.possible }),
          category: category&.name, weight: column.weight, "0 for who was not there": column.absent_zero }
      end
    end
  end
end
