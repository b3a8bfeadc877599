# frozen_string_literal: true

module Roost
  module Web
    # Looking back: sessions that have run, per question and per student, and as a sheet.
    class Results < TeacherApp
      get "/" do
        records = sessions.all_of(account_id)
        deleted = params["deleted"] && sessions.of_teacher(account_id, number("deleted"), deleted: true)
        page("results/index", title: "Results", records: records, seats: Store::Seats.new.count(records.map(&:id)),
                              deleted: (deleted if deleted&.deleted),
                              deleted_lately: sessions.deleted_lately(account_id))
      end

      get("/:id") { |id| show(id, "results/students", "Students") }

      get("/:id/questions") { |id| show(id, "results/questions", "Questions") }

      get "/:id/students/:seat" do |id, seat_id|
        record = own_session(id)
        results = results(record)
        line = results.line_of(seat_id.to_i) || not_found
        page("results/student", title: line.seat.name, record: record, results: results, line: line)
      end

      get "/:id/results.csv" do |id|
        record = own_session(id)
        content_type "text/csv; charset=utf-8"
        attachment "#{record.title.gsub(/[^[:alnum:] ]/, "").strip} #{record.created_at.strftime("%Y-%m-%d")}.csv"
        Exchange::ResultsSheet.new(results(record), class_name: record.class_name,
                                                    date: date(record.created_at)).to_csv
      end

      post "/:id/delete" do |id|
        record = own_session(id)
        unless sessions.mark_deleted(account_id, record.id, true)
          halt refuse("This session is still running. End it at the Desk first.")
        end
        redirect "/results?deleted=#{record.id}", 303
      end

      post "/:id/restore" do |id|
        record = own_session(id, deleted: true)
        sessions.mark_deleted(account_id, record.id, false)
        redirect "/results", 303
      end

      helpers do
        def sessions = Store::Sessions.new

        def results(record) = Core::Analysis::Results.new(Store::Rooms.new.snapshot(record))

        def show(id, template, tab)
          record = own_session(id)
          page("results/show", title: record.title, record: record, results: results(record), tab: tab, template: template)
        end
      end
    end
  end
end
